import { useState, type FormEvent } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { findingsOf, orProblem } from "../../api/problem";
import { useSendKey } from "../../api/useSendKey";
import { Button } from "../../kit/Button";
import { CopyBox } from "../../kit/CopyBox";
import { CheckBox, Labelled, TextBox, boxLook } from "../../kit/fields";
import { Page } from "../../kit/Page";
import { Failure, Skeleton } from "../../kit/states";
import { useTitle } from "../shell/useTitle";

const blank = { title: "", day: "", from: "13:00", minutes: 60, isWeekly: false };

/** One's own simulated calendar outside: what invitations put into it, and what is written into it by hand. */
export function PracticeCalendar() {
  useTitle("Practice calendar");
  const calendar = useQuery(ask(["practice-calendar"], () => api.GET("/api/practice/calendar")));
  const sendKey = useSendKey();
  const [entry, setEntry] = useState(blank);
  const change = (part: Partial<typeof blank>) => setEntry((before) => ({ ...before, ...part }));
  const add = useMutation({
    mutationFn: () => {
      const body = { ...entry, from: `${entry.from}:00` };
      return orProblem(api.POST("/api/practice/calendar", { body, headers: sendKey.for(body) }));
    },
    onSuccess: () => {
      sendKey.done();
      setEntry(blank);
    },
  });
  const remove = useMutation({
    mutationFn: (id: string) => orProblem(api.DELETE("/api/practice/calendar/{id}", { params: { path: { id } } })),
  });
  const findings = findingsOf(add.error);
  return (
    <Page title="Practice calendar">
      <p className="mb-4 max-w-prose text-slate">
        It plays your calendar outside of Porch Light. Invitations you get by practice mail stand in it. Add its address
        under Calendar, Hours, and its times are no longer offered.
      </p>
      <Failure error={calendar.error} />
      {calendar.isPending && <Skeleton />}
      {calendar.data && (
        <div className="grid items-start gap-6 lg:grid-cols-2">
          <section className="rounded-soft bg-card p-5 shadow-soft">
            <CopyBox label="Address" help="Other calendars read it here." text={calendar.data.address} rows={1} />
            <h2 className="mb-2 text-section">The next two weeks</h2>
            {calendar.data.days.length === 0 && <p className="text-slate">Nothing.</p>}
            <ul>
              {calendar.data.days.map((one) => (
                <li key={`${one.when} ${one.title}`} className="border-t border-line py-1.5 wrap-anywhere">
                  <span className="text-slate">{one.when}</span> {one.title}
                </li>
              ))}
            </ul>
          </section>
          <section className="rounded-soft bg-card p-5 shadow-soft">
            <h2 className="mb-3 text-section">Write something into it</h2>
            <form
              noValidate
              className="grid gap-4"
              onSubmit={(event: FormEvent) => {
                event.preventDefault();
                if (entry.day && !add.isPending) add.mutate();
              }}
            >
              <TextBox
                label="Title"
                value={entry.title}
                error={findings.get("title")}
                onChange={(e) => change({ title: e.target.value })}
              />
              <span className="grid grid-cols-3 gap-3">
                <Labelled label="Day">
                  <input
                    type="date"
                    className={boxLook}
                    value={entry.day}
                    onChange={(e) => change({ day: e.target.value })}
                  />
                </Labelled>
                <Labelled label="From">
                  <input
                    type="time"
                    className={boxLook}
                    value={entry.from}
                    onChange={(e) => change({ from: e.target.value })}
                  />
                </Labelled>
                <Labelled label="Minutes" error={findings.get("minutes")}>
                  <input
                    type="number"
                    className={boxLook}
                    value={entry.minutes}
                    onChange={(e) => change({ minutes: Number(e.target.value) })}
                  />
                </Labelled>
              </span>
              <CheckBox label="Every week" checked={entry.isWeekly} onChange={(isWeekly) => change({ isWeekly })} />
              {findings.size === 0 && <Failure error={add.error} />}
              <Button weight="main" type="submit" disabled={!entry.day || add.isPending} className="justify-self-start">
                Add it
              </Button>
            </form>
            <ul className="mt-4">
              {calendar.data.own.map((one) => (
                <li key={one.id} className="flex items-center justify-between gap-3 border-t border-line py-1.5">
                  <span className="min-w-0 wrap-anywhere">
                    <span className="text-slate">{one.when}</span> {one.title}
                  </span>
                  <Button
                    weight="quiet"
                    aria-label={`Remove ${one.title}`}
                    disabled={remove.isPending}
                    onClick={() => remove.mutate(one.id)}
                  >
                    Remove
                  </Button>
                </li>
              ))}
            </ul>
            <Failure error={remove.error} />
          </section>
        </div>
      )}
    </Page>
  );
}
