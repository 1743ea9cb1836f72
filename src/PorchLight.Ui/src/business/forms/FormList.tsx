import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { orProblem } from "../../api/problem";
import { buttonLook } from "../../kit/Button";
import { LightMark } from "../../kit/marks";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../client";
import { useTitle } from "../shell/useTitle";

export function FormList() {
  useTitle("Forms");
  const list = useQuery({ queryKey: ["forms"], queryFn: () => orProblem(api.GET("/api/forms")) });
  return (
    <main className="mx-auto h-full max-w-6xl overflow-y-auto p-6 sm:px-10">
      <div className="mb-4 flex items-center justify-between gap-4">
        <h1 className="text-2xl">Forms</h1>
        <Link to="/forms/new" className={buttonLook("plain")}>
          A new form
        </Link>
      </div>
      <Failure error={list.error} />
      {list.isPending && <Skeleton />}
      {list.data?.length === 0 && (
        <Empty>
          There is no form yet. Make the first one: it comes ready with questions, screening and follow-ups.
        </Empty>
      )}
      {list.data && list.data.length > 0 && (
        <ul className="overflow-hidden rounded-soft bg-card shadow-soft">
          {list.data.map((form) => (
            <li key={form.id} className="border-b border-line last:border-0">
              <Link
                to={`/forms/${form.id}`}
                className="flex min-h-11 flex-wrap items-center gap-x-6 gap-y-1 px-4 py-2 -outline-offset-2 hover:bg-mist/70"
              >
                <span className="inline-flex w-32 items-center gap-2">
                  <LightMark lit={form.shines} /> {form.shines ? "Light is on" : "Light is off"}
                </span>
                <strong className="min-w-48 flex-1">{form.title}</strong>
                <span className="w-28 tabular-nums">{form.questions} questions</span>
                <span className="w-28 tabular-nums">
                  {form.inquiries === 1 ? "1 inquiry" : `${form.inquiries} inquiries`}
                </span>
                <span className="w-56 text-slate">
                  {form.version === 0 ? "not published yet" : `version ${form.version}`}
                  {form.version > 0 && form.unpublishedChanges && ", changed since"}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </main>
  );
}
