import { ChevronLeft, ChevronRight } from "lucide-react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link, useParams, useSearchParams } from "react-router";
import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Schemas } from "../../api/problem";
import { buttonLook } from "../../kit/Button";
import { controlLook } from "../../kit/fields";
import { useListAddress } from "../../kit/listAddress";
import { ListAndPanel } from "../../kit/ListAndPanel";
import { Failure, Skeleton } from "../../kit/states";
import { useTitle } from "../shell/useTitle";
import { CalendarTabs } from "./CalendarTabs";
import { WeekPicture } from "./WeekPicture";

const meetingPath = (id: string) => `/calendar/${id}`;

/** The station Calendar: a note of the week beside the week. */
export function CalendarPage() {
  const { id } = useParams();
  const [search, setSearch] = useSearchParams();
  const [day, person] = [search.get("week"), search.get("who")];
  const week = useQuery({
    ...ask(["week", day, person], () =>
      api.GET("/api/calendar/week", {
        params: { query: { day: day ?? undefined, people: person ? [person] : [] } },
      }),
    ),
    placeholderData: keepPreviousData,
  });
  useTitle(id ? null : "Calendar");
  const data = week.data;
  const set = (name: string, value: string | null) =>
    setSearch((before) => {
      if (value) before.set(name, value);
      else before.delete(name);
      return before;
    });
  return (
    <ListAndPanel
      home="/calendar"
      rows={[...new Set(data?.entries.map((entry) => meetingPath(entry.meeting)))]}
      open={id ? meetingPath(id) : null}
    >
      <div className="w-full px-4 py-5 sm:px-6">
        <CalendarTabs />
        <Failure error={week.error} />
        {!data ? (
          <Skeleton rows={8} />
        ) : (
          <div className="grid items-start gap-6 @5xl/list:grid-cols-[16.5rem_minmax(0,1fr)]">
            <Note week={data} isBesidePanel={!!id} />
            <section aria-label={data.range} className="min-w-0">
              <div className="mb-3 flex flex-wrap items-center gap-2">
                <WeekButton label="The week before" onClick={() => set("week", data.before)}>
                  <ChevronLeft size={18} aria-hidden />
                </WeekButton>
                <button type="button" className={buttonLook("plain")} onClick={() => set("week", null)}>
                  Today
                </button>
                <WeekButton label="The week after" onClick={() => set("week", data.after)}>
                  <ChevronRight size={18} aria-hidden />
                </WeekButton>
                <span className="ml-1 text-slate">
                  {data.range}, {data.zone}
                </span>
                {data.people.length > 1 && (
                  <label className="ml-auto flex items-center gap-2">
                    <span>Show</span>
                    <select
                      className={controlLook}
                      value={person ?? ""}
                      onChange={(e) => set("who", e.target.value || null)}
                    >
                      <option value="">everybody</option>
                      {data.people.map((one) => (
                        <option key={one.id} value={one.id}>
                          {one.name}
                        </option>
                      ))}
                    </select>
                  </label>
                )}
              </div>
              <WeekPicture week={data} open={id} />
            </section>
          </div>
        )}
      </div>
    </ListAndPanel>
  );
}

function WeekButton({ label, onClick, children }: { label: string; onClick: () => void; children: React.ReactNode }) {
  return (
    <button type="button" aria-label={label} title={label} className={buttonLook("plain")} onClick={onClick}>
      {children}
    </button>
  );
}

/** The week in words: what it holds, what is next, and the days of the work. */
function Note({ week, isBesidePanel }: { week: Schemas["WeekView"]; isBesidePanel: boolean }) {
  const withSearch = useListAddress();
  const Title = isBesidePanel ? "p" : "h1";
  const [next, ...later] = week.upcoming;
  return (
    <section aria-label="The week in words">
      <Title className="mb-1 font-head text-title leading-tight font-semibold">{week.title}</Title>
      <p className="mb-4">{week.note}</p>
      {next && (
        <Link
          to={withSearch(meetingPath(next.meeting))}
          className="mb-3 block rounded-soft border border-edge bg-glow p-3.5 shadow-soft hover:border-ink"
        >
          <strong className="block">
            {next.when}, {next.name}
          </strong>
          <span className="block text-note text-slate">{next.detail}</span>
          {next.about && <span className="mt-1 block text-note">{next.about}</span>}
        </Link>
      )}
      <ul className="mb-5 grid gap-2.5">
        {later.map((one) => (
          <li key={one.meeting}>
            <Link to={withSearch(meetingPath(one.meeting))} className="block px-3.5 hover:underline">
              <strong className="block">
                {one.when}, {one.name}
              </strong>
              <span className="block text-note text-slate">{one.detail}</span>
            </Link>
          </li>
        ))}
      </ul>
      {week.daysOfWork.length > 0 && (
        <>
          <h2 className="mb-1 text-section">Days of projects</h2>
          <ul className="mb-5 divide-y divide-line">
            {week.daysOfWork.map((one, index) => (
              <li key={index} className="py-2">
                {one.day}{" "}
                <Link
                  className="text-slate hover:underline"
                  to={one.project ? `/clients/${one.client}/projects/${one.project}` : `/clients/${one.client}`}
                >
                  {one.name}: {one.label}
                </Link>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
