import { useState, type FormEvent } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { findingsOf, orProblem } from "../../api/problem";
import { useSendKey } from "../../api/useSendKey";
import { Button } from "../../kit/Button";
import { CopyBox } from "../../kit/CopyBox";
import { DayBox, TimeBox } from "../../kit/DayBox";
import { CheckBox, Labelled, TextBox } from "../../kit/fields";
import { NumberBox } from "../../kit/NumberBox";
import { Page } from "../../kit/Page";
import { Failure, Skeleton } from "../../kit/states";
import { useTitle } from "../shell/useTitle";

interface Entry {
  title: string;
  day: string | null;
  from: string | null;
  minutes: number | null;
  isWeekly: boolean;
}

const blank: Entry = { title: "", day: null, from: "13:00", minutes: 60, isWeekly: false };

/** One's own simulated calendar outside: what invitations put into it, and what is written into it by hand. */
export function PracticeCalendar() {
  useTitle("Practice calendar");
  const calendar = useQuery(ask(["practice-calendar"], () => api.GET("/api/practice/calendar")));
  const sendKey = useSendKey();
  const [entry, setEntry] = useState(blank);
  const change = (part: Partial<Entry>) => setEntry((before) => ({ ...before, ...part }));
  const add = useMutation({
    mutationFn: () => {
      const body = { ...entry, day: entry.day!, from: `${entry.from}:00`, minutes: entry.minutes ?? 0 };
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
  const isWhole = !!entry.day && !!entry.from;
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
                if (isWhole && !add.isPending) add.mutate();
              }}
            >
              <TextBox
                label="Title"
                value={entry.title}
                error={findings.get("title")}
                onChange={(e) => change({ title: e.target.value })}
              />
              <span className="flex flex-wrap gap-3">
                <DayBox label="Day" value={entry.day} onChange={(day) => change({ day })} />
                <TimeBox label="From" value={entry.from} onChange={(from) => change({ from })} />
                <Labelled label="Minutes" error={findings.get("minutes")}>
                  <NumberBox whole value={entry.minutes} onChange={(minutes) => change({ minutes })} />
                </Labelled>
              </span>
              <CheckBox label="Every week" checked={entry.isWeekly} onChange={(isWeekly) => change({ isWeekly })} />
              {findings.size === 0 && <Failure error={add.error} />}
              <Button weight="main" type="submit" disabled={!isWhole || add.isPending} className="justify-self-start">
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
