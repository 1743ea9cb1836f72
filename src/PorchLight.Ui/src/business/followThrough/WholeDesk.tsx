import type { Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { CheckBox, controlLook, Labelled, SelectBox, TextBox } from "../../kit/fields";
import { fits } from "../../kit/fits";
import { NumberBox } from "../../kit/NumberBox";
import { ConditionSentence } from "../conditions/ConditionSentence";
import { Offered } from "./ActionFields";
import { OccasionPicker, StagesPicker } from "./OccasionPicker";
import { beginStep } from "./stepKinds";
import { subjectsOf } from "./subjectsOf";
import type { Choices, Content, Edited, View } from "./useFollowThrough";

type StartOn = Schemas["StartOn"];
type StopOn = Schemas["StopOn"];

const starts: [StartOn["kind"], string][] = [
  ["inquiry", "an inquiry comes in"],
  ["stage", "a project reaches a stage"],
  ["booked", "they book a meeting"],
  ["replied", "they reply"],
  ["leftUnfinished", "someone leaves a form half-finished"],
  ["projectDate", "a day of a project comes"],
  ["yearlyDate", "a day of a person comes, each year"],
  ["byHand", "someone starts it by hand"],
];

interface Props {
  edited: Edited;
  view: View;
  choices: Choices;
  onOpen: (key: string | null) => void;
  onClose: () => void;
}

/** What starts it, what ends it, and what holds for all of it. */
export function WholeDesk({ edited, view, choices, onOpen, onClose }: Props) {
  const { content, step: change } = edited;
  const set = (part: Partial<Content>, member: string) => change((now) => ({ ...now, ...part }), member);
  const wrong = view.findings.filter((one) => one.place === "" || one.place === "starts" || one.place === "stops");
  return (
    <div className="grid gap-5">
      <div className="flex items-start justify-between gap-3">
        <h2 className="text-[1.15rem]">What starts and ends it</h2>
        <Button onClick={onClose}>Done</Button>
      </div>
      {wrong.map((one) => (
        <p key={one.sentence} role="alert" className="border-l-4 border-brick pl-3 font-semibold text-brick">
          {one.sentence}
        </p>
      ))}
      <TextBox label="What you call it" value={content.name} onChange={(e) => set({ name: e.target.value }, "name")} />
      <StartFields start={content.starts} choices={choices} onChange={(next) => set({ starts: next }, "starts")} />
      {content.starts.kind === "leftUnfinished" ? (
        <p>It ends at once if they continue or send the form.</p>
      ) : (
        <Stops content={content} choices={choices} onOpen={onOpen} onChange={(stops) => set({ stops }, "stops")} />
      )}
      <Labelled label="After how many days an unanswered nod lapses" help="The run then continues without that step.">
        <NumberBox
          whole
          value={content.lapseAfterDays}
          onChange={(days) => days !== null && set({ lapseAfterDays: days }, "lapse")}
        />
      </Labelled>
      <div>
        <CheckBox
          label="It keeps its rhythm from the start"
          help="After a late nod, later steps keep their days. Otherwise they move with the nod."
          checked={content.keepsRhythm ?? false}
          onChange={(keepsRhythm) => set({ keepsRhythm }, "rhythm")}
        />
        <CheckBox
          label="It may run beside others"
          help="Only beside others marked the same way. Otherwise nobody is on two at once: a new one ends the old one."
          checked={content.sideBySide ?? false}
          onChange={(sideBySide) => set({ sideBySide }, "beside")}
        />
      </div>
    </div>
  );
}

function StartFields({
  start,
  choices,
  onChange,
}: {
  start: StartOn;
  choices: Choices;
  onChange: (start: StartOn) => void;
}) {
  const begin = (kind: StartOn["kind"]): StartOn => {
    switch (kind) {
      case "inquiry":
        return { kind, form: null, fits: [] };
      case "stage":
        return { kind, stages: [] };
      case "leftUnfinished":
        return { kind, form: null, hours: 24 };
      case "projectDate":
        return { kind, field: choices.dates[0]?.key ?? "", days: -7 };
      case "yearlyDate":
        return { kind, field: choices.personDates[0]?.key ?? "", days: 0 };
      default:
        return { kind };
    }
  };
  return (
    <div className="grid gap-3">
      <SelectBox
        label="It starts when"
        value={start.kind}
        onChange={(e) => onChange(begin(e.target.value as StartOn["kind"]))}
      >
        {starts.map(([kind, words]) => (
          <option key={kind} value={kind}>
            {words}
          </option>
        ))}
      </SelectBox>
      {start.kind === "stage" && (
        <StagesPicker
          label="Which stage"
          none="Choose at least one."
          stages={choices.stages}
          chosen={start.stages}
          onChange={(stages) => onChange({ kind: "stage", stages })}
        />
      )}
      {start.kind === "leftUnfinished" && (
        <>
          <SelectBox
            label="Which form"
            value={start.form ?? ""}
            onChange={(e) => onChange({ ...start, form: e.target.value || null })}
          >
            <option value="">any form</option>
            <Offered choices={choices.forms} chosen={start.form} />
          </SelectBox>
          <Labelled
            label="After how many hours"
            help="Anyone who left more than a day before that is left alone. Messages only go to people who were told to expect one."
          >
            <NumberBox
              whole
              value={start.hours}
              onChange={(hours) => hours !== null && onChange({ ...start, hours })}
            />
          </Labelled>
        </>
      )}
      {(start.kind === "projectDate" || start.kind === "yearlyDate") && (
        <DayFields
          start={start}
          dates={start.kind === "projectDate" ? choices.dates : choices.personDates}
          onChange={onChange}
        />
      )}
      {start.kind === "inquiry" && (
        <>
          <SelectBox
            label="Through"
            value={start.form ?? ""}
            onChange={(e) => onChange({ ...start, form: e.target.value || null })}
          >
            <option value="">any form</option>
            <Offered choices={choices.forms} chosen={start.form} />
          </SelectBox>
          <fieldset>
            <legend className="font-semibold">Sorted as</legend>
            <p className="text-slate">Choose none to include every inquiry.</p>
            {fits.map(([fit, words]) => (
              <CheckBox
                key={fit}
                label={words}
                checked={start.fits.includes(fit)}
                onChange={(on) =>
                  onChange({ ...start, fits: on ? [...start.fits, fit] : start.fits.filter((one) => one !== fit) })
                }
              />
            ))}
          </fieldset>
          {choices.services.length > 0 && (
            <SelectBox
              label="For"
              value={start.service ?? ""}
              onChange={(e) => onChange({ ...start, service: e.target.value || null })}
            >
              <option value="">any service</option>
              <Offered choices={choices.services} chosen={start.service} />
            </SelectBox>
          )}
          <ConditionSentence
            value={start.condition}
            onChange={(condition) => onChange({ ...start, condition })}
            subjects={subjectsOf(choices)}
            without="Whatever they answered."
            begin="Only if they answered …"
            label="Only if"
          />
        </>
      )}
    </div>
  );
}

type DatedStart = Extract<StartOn, { kind: "projectDate" | "yearlyDate" }>;

/** A day counted from one that stands in a field. */
function DayFields({
  start,
  dates,
  onChange,
}: {
  start: DatedStart;
  dates: Schemas["Choice"][];
  onChange: (start: DatedStart) => void;
}) {
  const { days } = start;
  const way = days === 0 ? "on" : days < 0 ? "before" : "after";
  const count = Math.abs(days);
  const set = (next: string, amount: number) =>
    onChange({ ...start, days: next === "on" ? 0 : (next === "before" ? -1 : 1) * Math.max(amount, 1) });
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">On which day</legend>
      <p className="flex flex-wrap items-center gap-2">
        {way !== "on" && (
          <>
            <NumberBox
              aria-label="How many days"
              className="w-20"
              whole
              value={count}
              onChange={(amount) => amount !== null && set(way, Math.abs(amount))}
            />
            <span>days</span>
          </>
        )}
        <select
          aria-label="Before or after"
          className={`${controlLook} w-auto max-w-full`}
          value={way}
          onChange={(e) => set(e.target.value, count)}
        >
          <option value="before">before</option>
          <option value="on">on</option>
          <option value="after">after</option>
        </select>
        <select
          aria-label="Counted from"
          className={`${controlLook} w-auto max-w-full`}
          value={start.field}
          onChange={(e) => onChange({ ...start, field: e.target.value })}
        >
          <Offered choices={dates} chosen={start.field} />
        </select>
      </p>
      <p className="mt-1 text-slate">
        {start.kind === "projectDate"
          ? "For every project with this date, except lost ones."
          : "For every client with this date, except archived ones; for the first time a year after the date itself."}
      </p>
    </fieldset>
  );
}

interface StopsProps {
  content: Content;
  choices: Choices;
  onOpen: (key: string | null) => void;
  onChange: (stops: StopOn[]) => void;
}

function Stops({ content, choices, onOpen, onChange }: StopsProps) {
  const { stops } = content;
  const set = (index: number, stop: StopOn) => onChange(stops.map((one, at) => (at === index ? stop : one)));
  return (
    <section aria-label="What ends it">
      <h3 className="font-body font-semibold">It ends at once if</h3>
      <p className="mb-2 text-slate">Closing the work, setting the inquiry aside or stopping by hand always ends it.</p>
      <ul className="grid gap-3">
        {stops.map((stop, index) => (
          <li key={index} className="rounded-soft border border-line p-3">
            <OccasionPicker
              label="If"
              occasion={stop.on}
              stages={choices.stages}
              onChange={(on) => set(index, { ...stop, on })}
            />
            <p className="mt-1 flex flex-wrap items-center gap-x-2">
              {stop.last ? (
                <Button weight="quiet" className="-ml-3" onClick={() => onOpen(stop.last!.key)}>
                  Then: {stop.last.name || "a last step"}
                </Button>
              ) : (
                <Button
                  weight="quiet"
                  className="-ml-3"
                  onClick={() => {
                    const last = { ...beginStep("sendMessage", choices, true), name: "A last word" };
                    set(index, { ...stop, last });
                    onOpen(last.key);
                  }}
                >
                  Do one last thing
                </Button>
              )}
              <Button weight="quiet" onClick={() => onChange(stops.filter((_, at) => at !== index))}>
                It does not end it
              </Button>
            </p>
          </li>
        ))}
      </ul>
      <Button className="mt-2" onClick={() => onChange([...stops, { on: { kind: "replied" }, last: null }])}>
        Add a way to end
      </Button>
    </section>
  );
}
