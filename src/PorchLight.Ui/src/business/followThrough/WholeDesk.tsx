import type { Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { CheckBox, Labelled, SelectBox, TextBox } from "../../kit/fields";
import { NumberBox } from "../../kit/NumberBox";
import { beginStep } from "./beginStep";
import { OccasionPicker } from "./OccasionPicker";
import { kindOf, startKinds, startNames } from "./starts/startKinds";
import type { StartOn } from "./starts/startKind";
import type { Choices, Content, Edited, View } from "./useFollowThrough";

type StopOn = Schemas["StopOn"];

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
        <h2 className="text-lead">What starts and ends it</h2>
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

interface StartProps {
  start: StartOn;
  choices: Choices;
  onChange: (start: StartOn) => void;
}

function StartFields({ start, choices, onChange }: StartProps) {
  const { Fields } = kindOf(start);
  return (
    <div className="grid gap-3">
      <SelectBox
        label="It starts when"
        value={start.kind}
        onChange={(e) => onChange(startKinds[e.target.value as StartOn["kind"]].begin(choices))}
      >
        {startNames.map((kind) => (
          <option key={kind} value={kind}>
            {startKinds[kind].label}
          </option>
        ))}
      </SelectBox>
      {Fields && <Fields start={start} choices={choices} onChange={onChange} />}
    </div>
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
