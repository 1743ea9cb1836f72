import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { controlLook } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useSession } from "../shell/session";

type Import = Schemas["ImportView"];

/** Chosen as a place, it makes one: no field has such a key. */
const newField = "+";

const count = (number: number) => number.toLocaleString("en");

/** What the columns of a file are, and what would come of it. */
export function ImportPlan({ import: one }: { import: Import }) {
  const queries = useQueryClient();
  const notice = useNotice();
  const { role } = useSession();
  const path = { path: { id: one.id! } };
  const targets = one.columns.map((column) => column.target);
  const plan = useMutation({
    mutationFn: (body: Schemas["ImportPlan"]) =>
      orProblem(api.PUT("/api/clients/imports/{id}/plan", { params: path, body })),
    onSuccess: (changed) => {
      queries.setQueryData(["import", one.id], changed);
    },
  });
  const run = useMutation({
    mutationFn: () => orProblem(api.PUT("/api/clients/imports/{id}/running", { params: path })),
  });
  const add = useMutation({
    mutationFn: (column: number) =>
      orProblem(
        api.PUT("/api/clients/imports/{id}/columns/{column}/field", { params: { path: { ...path.path, column } } }),
      ),
    onSuccess: (changed, column) => {
      const made = changed.targets.find((target) => target.key === changed.columns[column]?.target);
      queries.setQueryData(["import", one.id], changed);
      if (made) notice({ words: `“${made.label}” is a field of clients now.` });
    },
  });
  const preview = useQuery({
    ...ask(["import-preview", one.id], () => api.GET("/api/clients/imports/{id}/preview", { params: path })),
    // Once it runs there is nothing to look at beforehand any more.
    enabled: !plan.isPending && !run.isPending && !run.isSuccess,
  });
  const set = (column: number, target: string) =>
    plan.mutate({
      // Two columns cannot go to one place: the one that was there before goes nowhere.
      targets: targets.map((was, at) => (at === column ? target : was === target ? "" : was)),
      replace: one.replace,
    });
  return (
    <>
      <p className="mb-3">
        <strong>{one.fileName}</strong>: {one.lines === 1 ? "one line" : `${count(one.lines)} lines`}, read as{" "}
        {one.encoding}.
      </p>
      <section className="mb-6 overflow-x-auto rounded-soft border border-line bg-card">
        <table className="w-full border-collapse text-left">
          <thead className="text-note text-slate">
            <tr>
              <th className="px-4 py-2 font-normal">Column in the file</th>
              <th className="px-4 py-2 font-normal">Contents</th>
              <th className="px-4 py-2 font-normal">Goes to</th>
            </tr>
          </thead>
          <tbody>
            {one.columns.map((column, index) => (
              <tr key={index} className="border-t border-line align-top">
                <th scope="row" className="px-4 py-2 font-semibold">
                  {column.heading || `Column ${index + 1}`}
                </th>
                <td className="max-w-72 px-4 py-2 wrap-anywhere text-slate">{column.sample.join(" · ")}</td>
                <td className="px-4 py-1.5">
                  <select
                    aria-label={`Where “${column.heading}” goes`}
                    className={controlLook}
                    value={column.target}
                    disabled={add.isPending}
                    onChange={(e) => (e.target.value === newField ? add.mutate(index) : set(index, e.target.value))}
                  >
                    <option value="">nowhere</option>
                    {role === "owner" && !column.target && <option value={newField}>a new field for it</option>}
                    {one.targets.map((target) => (
                      <option key={target.key} value={target.key}>
                        {target.label}
                      </option>
                    ))}
                  </select>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <fieldset className="mb-6">
        <legend className="mb-1 font-semibold">Existing clients</legend>
        {[false, true].map((replace) => (
          <label key={String(replace)} className="flex items-start gap-2 py-0.5">
            <input
              type="radio"
              name="replace"
              className="mt-1 accent-dusk"
              checked={one.replace === replace}
              onChange={() => plan.mutate({ targets, replace })}
            />
            {replace
              ? "take what the file says; the old values stay in the history"
              : "fill in what is empty; replace nothing"}
          </label>
        ))}
      </fieldset>
      <Failure error={plan.error ?? add.error ?? preview.error ?? run.error} />
      {preview.data ? <Outcome preview={preview.data} /> : preview.error ? null : <Skeleton rows={3} />}
      <p className="mt-5 flex flex-wrap gap-2">
        <Button
          weight="main"
          disabled={run.isPending || plan.isPending || !preview.data || preview.data.new + preview.data.known === 0}
          onClick={() => run.mutate()}
        >
          {preview.data && preview.data.new + preview.data.known > 0
            ? `Bring ${count(preview.data.new + preview.data.known)} in`
            : "Import them"}
        </Button>
        <Link to="/clients/import" className={buttonLook("quiet")}>
          Choose another file
        </Link>
      </p>
    </>
  );
}

function Outcome({ preview }: { preview: Schemas["ImportPreview"] }) {
  return (
    <section aria-live="polite">
      <h2 className="mb-1 text-section">What would happen</h2>
      <ul className="list-disc pl-5">
        <li>
          {preview.new === 0
            ? "Nobody is new."
            : `${count(preview.new)} new ${preview.new === 1 ? "client" : "clients"}`}
        </li>
        {preview.known > 0 && <li>{count(preview.known)} already clients, or twice in the file</li>}
        {preview.leftOut > 0 && (
          <li>
            {preview.leftOut === 1 ? "One line is left out" : `${count(preview.leftOut)} lines are left out`}: nobody
            can be told from {preview.leftOut === 1 ? "it" : "them"}
          </li>
        )}
      </ul>
      {preview.perhapsSameCount > 0 && (
        <details className="mt-3">
          <summary className="cursor-pointer font-semibold">
            {preview.perhapsSameCount === 1
              ? "One new client may already be here"
              : `${count(preview.perhapsSameCount)} new clients may already be here`}
          </summary>
          <p className="text-slate">They are added as separate clients, and you decide about each.</p>
          <ul className="mt-1 grid gap-0.5">
            {preview.perhapsSame.map((one) => (
              <li key={one.line}>
                Line {one.line}: {one.name} and {one.clientName} have {one.why}.
              </li>
            ))}
          </ul>
          <Rest shown={preview.perhapsSame.length} all={preview.perhapsSameCount} />
        </details>
      )}
      {preview.faultCount > 0 && (
        <details className="mt-3" open={preview.faultCount <= 5}>
          <summary className="cursor-pointer font-semibold">
            {preview.faultCount === 1
              ? "One thing cannot be imported"
              : `${count(preview.faultCount)} things cannot be imported`}
          </summary>
          <ul className="mt-1 grid gap-0.5">
            {preview.faults.map((fault, index) => (
              <li key={index}>
                {fault.count === 1 ? "Line" : "Lines"} {fault.lines.join(", ")}
                {fault.count > fault.lines.length && ` and ${count(fault.count - fault.lines.length)} more`}
                {fault.column && `, ${fault.column}`}: {fault.sentence}
              </li>
            ))}
          </ul>
          <Rest shown={0} all={preview.moreFaults} />
        </details>
      )}
    </section>
  );
}

function Rest({ shown, all }: { shown: number; all: number }) {
  return all > shown ? <p className="text-slate">and {count(all - shown)} more</p> : null;
}
