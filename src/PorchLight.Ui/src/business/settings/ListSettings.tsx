import { ArrowDown, ArrowUp } from "lucide-react";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { boxLook, controlLook } from "../../kit/fields";
import { NumberBox } from "../../kit/NumberBox";
import { api } from "../client";
import { useEdit } from "../edits/useEdit";
import { SavedForm } from "../edits/SavedForm";
import type { SettingsView } from "./Settings";

type Lists = Schemas["BusinessLists"];
type ListName = keyof Lists;

const names: Record<ListName, string> = {
  services: "Services",
  sources: "Sources",
  stages: "Stages",
  lostReasons: "Reasons",
  colleagues: "Colleagues",
};

const stageKinds: [Schemas["StageKind"] | "ourNo", string][] = [
  ["open", "nothing agreed yet"],
  ["parked", "later"],
  ["won", "agreed"],
  ["done", "closed: finished"],
  ["lost", "closed: will not come"],
  ["ourNo", "closed: we said no"],
];

/** What the business sells and how people find it, for questions that offer these lists. */
export function ListSettings({ settings }: { settings: SettingsView }) {
  const edit = useEdit(
    settings.lists,
    async (body) => (await orProblem(api.PUT("/api/settings/lists", { body }))).lists,
  );
  const { now, findings } = edit;
  return (
    <SavedForm edit={edit} nameOf={(place) => names[place.split(".")[0] as ListName] ?? place}>
      <List
        name="services"
        help={`What you sell, and where it starts in price, in ${settings.business.currency}. Forms offer it where a question asks for a service; the answer becomes the project's service.`}
        add="Add a service"
        lines={now.services}
        fresh={{ key: "", name: "", startsAt: null } as Schemas["Service"]}
        findings={findings}
        onChange={(services) => edit.change({ services })}
        more={(service, change, index) => (
          <span className="w-32">
            <input
              type="number"
              min={0}
              step="any"
              aria-label={`Service ${index + 1} starts at`}
              placeholder="starts at"
              className={boxLook}
              value={service.startsAt ?? ""}
              onChange={(e) => change({ ...service, startsAt: e.target.value === "" ? null : Number(e.target.value) })}
            />
          </span>
        )}
        under={(service, change, index) => (
          <ServicePlan service={service} of={service.name || `service ${index + 1}`} onChange={change} />
        )}
      />
      <List
        name="sources"
        help="How people find you. Forms offer it where a question asks for a source. Under “How people found you” you see what was written, and merge."
        add="Add a source"
        lines={now.sources}
        fresh={{ key: "", name: "" } as Schemas["Source"]}
        findings={findings}
        onChange={(sources) => edit.change({ sources })}
        more={(source, change, index) => (
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="size-4 accent-dusk"
              checked={source.isReferral ?? false}
              onChange={(e) => change({ ...source, isReferral: e.target.checked })}
            />
            <span className="sr-only">{source.name || `Source ${index + 1}`}: </span>a person sends them, remind me to
            thank
          </label>
        )}
      />
      <List
        name="stages"
        help="Where a project stands on its way. New projects begin in the first one of “nothing agreed yet”; one that is closed takes no further inquiries."
        add="Add a stage"
        lines={now.stages ?? []}
        fresh={{ key: "", name: "", kind: "open" as const }}
        findings={findings}
        onChange={(stages) => edit.change({ stages })}
        more={(stage, change, index) => (
          <select
            aria-label={`What stage ${index + 1} means`}
            className={controlLook}
            value={stage.kind === "lost" && stage.isOurNo ? "ourNo" : stage.kind}
            onChange={(e) =>
              change(
                e.target.value === "ourNo"
                  ? { ...stage, kind: "lost", isOurNo: true }
                  : { ...stage, kind: e.target.value as Schemas["StageKind"], isOurNo: false },
              )
            }
          >
            {stageKinds.map(([kind, words]) => (
              <option key={kind} value={kind}>
                {words}
              </option>
            ))}
          </select>
        )}
      />
      <List
        name="colleagues"
        help="Colleagues of the trade whom a kind no can name, with what they are good for and how to reach them."
        add="Add a colleague"
        lines={now.colleagues ?? []}
        fresh={{ key: "", name: "", about: "" }}
        findings={findings}
        onChange={(colleagues) => edit.change({ colleagues })}
        more={(colleague, change, index) => (
          <span className="min-w-56 flex-[2]">
            <input
              aria-label={`What colleague ${index + 1} is good for`}
              placeholder="signs on glass, fern@oakley.example"
              className={boxLook}
              value={colleague.about}
              onChange={(e) => change({ ...colleague, about: e.target.value })}
            />
          </span>
        )}
      />
      <List
        name="lostReasons"
        help="Why work does not come. A project that moves to a lost stage is marked with one of them."
        add="Add a reason"
        lines={(now.lostReasons ?? []).map((name) => ({ key: "", name }))}
        fresh={{ key: "", name: "" }}
        findings={findings}
        onChange={(reasons) => edit.change({ lostReasons: reasons.map((one) => one.name) })}
      />
      <p className="text-slate">
        A published form keeps these lists as they stood; publish it again to bring it up to date.
      </p>
    </SavedForm>
  );
}

interface ListProps<T extends { key: string; name: string }> {
  name: ListName;
  help: string;
  add: string;
  lines: T[];
  fresh: T;
  findings: Map<string, string>;
  onChange: (lines: T[]) => void;
  more?: (line: T, change: (line: T) => void, index: number) => React.ReactNode;
  /** What stands under a line. */
  under?: (line: T, change: (line: T) => void, index: number) => React.ReactNode;
}

interface PlanProps {
  service: Schemas["Service"];
  /** What it is called. */
  of: string;
  onChange: (service: Schemas["Service"]) => void;
}

/** When and where a service is done: what ready signals of a screening go by. */
function ServicePlan({ service, of, onChange }: PlanProps) {
  const weeks = (member: "leadWeeks" | "bookingWeeks", label: string) => (
    <NumberBox
      aria-label={`${label}, ${of}`}
      className="w-16"
      whole
      value={service[member]}
      onChange={(value) => onChange({ ...service, [member]: value })}
    />
  );
  return (
    <div className="mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1.5 pl-3 text-slate">
      <span className="inline-flex items-center gap-1.5">
        begins {weeks("leadWeeks", "Weeks until it begins")} weeks after a yes,
      </span>
      <span className="inline-flex items-center gap-1.5">
        booked up to {weeks("bookingWeeks", "Weeks it can be booked ahead")} weeks ahead,
      </span>
      <span className="inline-flex min-w-56 flex-1 items-center gap-1.5">
        in
        <input
          key={service.key}
          aria-label={`Places it is done in, ${of}`}
          placeholder="anywhere, or places with commas between them"
          className={boxLook}
          defaultValue={(service.area ?? []).join(", ")}
          onChange={(e) =>
            onChange({
              ...service,
              area: e.target.value
                .split(",")
                .map((place) => place.trim())
                .filter((place) => place !== ""),
            })
          }
        />
      </span>
    </div>
  );
}

function List<T extends { key: string; name: string }>(props: ListProps<T>) {
  const { name, lines, findings, onChange } = props;
  const one = names[name].slice(0, -1);
  return (
    <fieldset className="mb-6">
      <legend className="font-semibold">{names[name]}</legend>
      <p className="mb-2 text-slate">{props.help}</p>
      <div className="grid gap-2">
        {lines.map((line, index) => {
          const wrong = ["name", "startsAt", "leadWeeks", "bookingWeeks", "area", "about"]
            .map((member) => findings.get(`${name}.${index}.${member}`))
            .find((sentence) => sentence !== undefined);
          const change = (next: T) => onChange(lines.with(index, next));
          return (
            <div key={index}>
              <div className="flex flex-wrap items-center gap-2">
                <span className="min-w-40 flex-1">
                  <input
                    aria-label={`${one} ${index + 1}`}
                    className={boxLook}
                    value={line.name}
                    aria-invalid={wrong ? true : undefined}
                    onChange={(e) => change({ ...line, name: e.target.value })}
                  />
                </span>
                {props.more?.(line, change, index)}
                <span className="flex">
                  {(["up", "down"] as const).map((where) => {
                    const to = index + (where === "up" ? -1 : 1);
                    return (
                      <Button
                        key={where}
                        weight="quiet"
                        className="px-1.5"
                        aria-label={`Move ${line.name || `${one.toLowerCase()} ${index + 1}`} ${where}`}
                        disabled={to < 0 || to >= lines.length}
                        onClick={() => onChange(lines.with(index, lines[to]!).with(to, line))}
                      >
                        {where === "up" ? <ArrowUp size={16} aria-hidden /> : <ArrowDown size={16} aria-hidden />}
                      </Button>
                    );
                  })}
                </span>
                <Button
                  weight="quiet"
                  aria-label={`Take away ${line.name || `${one.toLowerCase()} ${index + 1}`}`}
                  onClick={() => onChange(lines.toSpliced(index, 1))}
                >
                  Take away
                </Button>
              </div>
              {props.under?.(line, change, index)}
              {wrong && <p className="font-semibold text-brick">{wrong}</p>}
            </div>
          );
        })}
      </div>
      {findings.has(name) && <p className="font-semibold text-brick">{findings.get(name)}</p>}
      <Button className="mt-2" onClick={() => onChange([...lines, props.fresh])}>
        {props.add}
      </Button>
    </fieldset>
  );
}
