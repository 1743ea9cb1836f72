import type { Schemas } from "../../api/problem";
import { CheckBox, controlLook } from "../../kit/fields";
import { NumberBox } from "../../kit/NumberBox";

type Schedule = Schemas["Schedule"];
type Anchor = Schemas["Anchor"];
type Unit = Schemas["TimeUnit"];

const units: [Unit, string][] = [
  ["minutes", "minutes"],
  ["hours", "hours"],
  ["days", "days"],
  ["workingDays", "working days"],
  ["weeks", "weeks"],
  ["months", "months"],
];

interface Offer {
  /** Names it among all. */
  key: string;
  words: string;
  anchor: Anchor;
}

/** What a step can be counted from, by kind, in the order in which it is offered. */
const anchors: { [K in Anchor["kind"]]: (around: { isFirst: boolean; dates: Schemas["Choice"][] }) => Offer[] } = {
  runStart: () => [{ key: "runStart", words: "the start", anchor: { kind: "runStart" } }],
  previousSettled: ({ isFirst }) =>
    isFirst
      ? []
      : [{ key: "previousSettled", words: "the previous step is settled", anchor: { kind: "previousSettled" } }],
  meeting: () => [{ key: "meeting", words: "the meeting begins", anchor: { kind: "meeting" } }],
  projectDate: ({ dates }) =>
    dates.map((one) => ({
      key: `projectDate:${one.key}`,
      words: `the day of “${one.name}”`,
      anchor: { kind: "projectDate", field: one.key },
    })),
};
/** Whether a step can come before what it is counted from: what lies ahead. */
const canBeBefore = (anchor: Anchor) => anchor.kind === "projectDate" || anchor.kind === "meeting";
const keyOf = (anchor: Anchor) => (anchor.kind === "projectDate" ? `projectDate:${anchor.field}` : anchor.kind);

const look = `${controlLook} w-auto max-w-full`;

interface Props {
  schedule: Schedule;
  isFirst: boolean;
  /** Whether it is how long something is waited for. */
  isWait: boolean;
  /** Whether it only decides how the run goes on, which disturbs nobody at any hour. */
  isFlow: boolean;
  dates: Schemas["Choice"][];
  onChange: (schedule: Schedule) => void;
}

/** When a step comes, as a sentence with pickers in it. */
export function SchedulePicker({ schedule, isFirst, isWait, isFlow, dates, onChange }: Props) {
  const { anchor, amount, unit, atOnce } = schedule;
  const from = keyOf(anchor);
  const offers = Object.values(anchors).flatMap((of) => of({ isFirst: isFirst && from !== "previousSettled", dates }));
  const isBefore = amount < 0;
  const setFrom = (next: string) => {
    const { anchor } = offers.find((one) => one.key === next)!;
    onChange({ ...schedule, amount: canBeBefore(anchor) ? amount : Math.abs(amount), anchor });
  };
  return (
    <div>
      <p className="flex flex-wrap items-center gap-2">
        <NumberBox
          aria-label="How many"
          className="w-20"
          whole
          value={Math.abs(amount)}
          onChange={(number) =>
            number !== null && onChange({ ...schedule, amount: (isBefore ? -1 : 1) * Math.abs(number) })
          }
        />
        <select
          aria-label="Of what"
          className={look}
          value={unit}
          onChange={(e) => onChange({ ...schedule, unit: e.target.value as Unit })}
        >
          {units.map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
        {!isWait && (
          <>
            {canBeBefore(anchor) ? (
              <select
                aria-label="Before or after"
                className={look}
                value={isBefore ? "before" : "after"}
                onChange={(e) =>
                  onChange({ ...schedule, amount: (e.target.value === "before" ? -1 : 1) * Math.abs(amount) })
                }
              >
                <option value="before">before</option>
                <option value="after">after</option>
              </select>
            ) : (
              <span>after</span>
            )}
            <select aria-label="Counted from" className={look} value={from} onChange={(e) => setFrom(e.target.value)}>
              {offers.map((one) => (
                <option key={one.key} value={one.key}>
                  {one.words}
                </option>
              ))}
            </select>
          </>
        )}
      </p>
      {!isFlow && (
        <CheckBox
          label="At any hour"
          help={atOnce ? "Even at night and on days off." : "Otherwise only during your sending hours."}
          checked={atOnce}
          onChange={(on) => onChange({ ...schedule, atOnce: on })}
        />
      )}
    </div>
  );
}
