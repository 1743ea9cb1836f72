import { useQuery } from "@tanstack/react-query";
import { askOnce } from "../../api/ask";
import { api } from "../../api/client";
import { orProblem, type Schemas } from "../../api/problem";
import { CheckBox, TextBox } from "../../kit/fields";
import { Page } from "../../kit/Page";
import { Failure, Skeleton } from "../../kit/states";
import { SavedForm } from "../saving/SavedForm";
import { useEdit } from "../saving/useEdit";
import { useTitle } from "../shell/useTitle";
import { WeekFields } from "../shell/WeekFields";
import { CalendarTabs } from "./CalendarTabs";
import { OutsideCalendars } from "./OutsideCalendars";
import { OwnFeed } from "./OwnFeed";

type View = Schemas["UserHoursView"];

/** When each person can be met. */
export function HoursPage() {
  useTitle("Hours");
  const query = useQuery({ ...askOnce(["user-hours"], () => api.GET("/api/user-hours")), refetchOnMount: "always" });
  return (
    <Page back={<CalendarTabs />} title="Hours">
      <p className="mb-4 max-w-3xl text-slate">
        Times are offered within these hours. Nobody is booked on a day off or while the business is closed.
      </p>
      {!query.data || !query.isFetchedAfterMount ? (
        query.error ? (
          <Failure error={query.error} />
        ) : (
          <Skeleton rows={6} />
        )
      ) : (
        <div className="grid items-start gap-6 xl:grid-cols-2">
          {query.data.people.map((person) => (
            <OfPerson key={person.user} view={query.data} person={person} />
          ))}
        </div>
      )}
    </Page>
  );
}

function OfPerson({ view, person }: { view: View; person: View["people"][number] }) {
  const edit = useEdit(person.hours, (body) =>
    orProblem(api.PUT("/api/user-hours/{user}", { params: { path: { user: person.user } }, body })),
  );
  const { weekly, daysOff } = edit.now;
  if (!person.mayChange)
    return (
      <section className="rounded-soft bg-card p-6 shadow-soft">
        <h2 className="mb-2 text-lead">{person.name}</h2>
        <p>{weekly ? "Has hours of their own." : "The business’s hours."}</p>
        {daysOff && <p>Off on {daysOff}.</p>}
      </section>
    );
  return (
    <section aria-label={person.name}>
      <SavedForm edit={edit} nameOf={(place) => (place.includes("daysOff") ? "Days off" : "Weekly hours")}>
        <h2 className="mb-2 text-lead">
          {person.name}
          {person.isYou && <span className="font-normal text-slate"> (you)</span>}
        </h2>
        <CheckBox
          label="Hours of their own"
          help={weekly ? undefined : "Otherwise the business’s hours hold."}
          checked={weekly !== null}
          onChange={(on) => edit.change({ weekly: on ? view.business : null })}
        />
        {weekly && (
          <div className="mt-3">
            <WeekFields
              value={weekly}
              findings={edit.findings}
              empty="not there"
              onChange={(part) => edit.change({ weekly: { ...weekly, ...part } })}
            />
          </div>
        )}
        <div className="mt-4">
          <TextBox
            label="Days off"
            help={
              view.closed
                ? `Beside the days the business is closed: ${view.closed}.`
                : "Like 24 December 2026 to 3 January 2027, or 24.12.2026."
            }
            value={daysOff}
            error={edit.findings.get("daysOff")}
            onChange={(e) => edit.change({ daysOff: e.target.value })}
          />
        </div>
      </SavedForm>
      <div className="-mt-2 rounded-soft bg-card px-6 pb-5 shadow-soft empty:hidden">
        <OutsideCalendars user={person.user} isYou={person.isYou} />
        {person.isYou && <OwnFeed />}
      </div>
    </section>
  );
}
