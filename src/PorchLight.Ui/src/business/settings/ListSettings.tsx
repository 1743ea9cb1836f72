import { useRef, type FocusEvent, type ReactNode } from "react";
import { ArrowDown, ArrowUp } from "lucide-react";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { boxLook, controlLook } from "../../kit/fields";
import { newKey } from "../../kit/newKey";
import { NumberBox } from "../../kit/NumberBox";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { Clashes } from "../saving/Clashes";
import { useEdit } from "../saving/useEdit";

type Lists = Schemas["BusinessLists"];
type ListName = keyof Lists;

const names: Record<ListName, string> = {
  services: "Services",
  sources: "Sources",
  stages: "Stages",
  lostReasons: "Why work is lost",
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

const freshKey = () => newKey().slice(0, 8);

/** One of the lists of the business, saved line by line. */
export function ListSettings({ settings, list }: { settings: Schemas["SettingsView"]; list: ListName }) {
  const edit = useEdit(
    settings.lists,
    async (body) => (await orProblem(api.PUT("/api/settings/lists", { body }))).lists,
  );
  const { now, findings, clashes } = edit;
  const one = {
    services: (
      <List
        findings={findings}
        onChange={(services) => edit.change({ services })}
        onSave={(services) => edit.saveNow({ ...now, services })}
        name="services"
        one="Service"
        help={`What you sell and its starting price in ${settings.business.currency}. Forms offer these where a question asks for a service; the answer becomes the project’s service.`}
        add="Add a service"
        lines={now.services}
        fresh={() => ({ key: freshKey(), name: "", startsAt: null }) as Schemas["Service"]}
        more={(service, change, index) => (
          <label className="flex items-center gap-1.5">
            from
            <NumberBox
              aria-label={`Service ${index + 1} starts at`}
              value={service.startsAt ?? null}
              onChange={(startsAt) => change({ ...service, startsAt })}
            />
            {settings.business.currency}
          </label>
        )}
        under={(service, change, index) => (
          <ServicePlan service={service} of={service.name || `service ${index + 1}`} onChange={change} />
        )}
      />
    ),
    sources: (
      <List
        findings={findings}
        onChange={(sources) => edit.change({ sources })}
        onSave={(sources) => edit.saveNow({ ...now, sources })}
        name="sources"
        one="Source"
        help="How people find you. Forms offer these where a question asks for a source."
        add="Add a source"
        lines={now.sources}
        fresh={() => ({ key: freshKey(), name: "" }) as Schemas["Source"]}
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
    ),
    stages: (
      <List
        findings={findings}
        onChange={(stages) => edit.change({ stages })}
        onSave={(stages) => edit.saveNow({ ...now, stages })}
        name="stages"
        one="Stage"
        help="Where a project stands. New projects begin in the first one of “nothing agreed yet”; a closed project takes no further inquiries."
        add="Add a stage"
        lines={now.stages ?? []}
        fresh={() => ({ key: freshKey(), name: "", kind: "open" as const })}
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
    ),
    colleagues: (
      <List
        findings={findings}
        onChange={(colleagues) => edit.change({ colleagues })}
        onSave={(colleagues) => edit.saveNow({ ...now, colleagues })}
        name="colleagues"
        one="Colleague"
        help="People in your trade you can name in a kind no: what they are good at, and how to reach them."
        add="Add a colleague"
        lines={now.colleagues ?? []}
        fresh={() => ({ key: freshKey(), name: "", about: "" })}
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
    ),
    lostReasons: (
      <List
        findings={findings}
        onChange={(reasons) => edit.change({ lostReasons: reasons.map((one) => one.name) })}
        onSave={(reasons) => edit.saveNow({ ...now, lostReasons: reasons.map((one) => one.name) })}
        name="lostReasons"
        one="Reason"
        help="Why work is lost. You choose one when a project moves to a lost stage."
        add="Add a reason"
        lines={(now.lostReasons ?? []).map((name) => ({ key: "", name }))}
        fresh={() => ({ key: "", name: "" })}
      />
    ),
  };
  return (
    <div className="rounded-soft bg-card p-6 shadow-soft">
      {one[list]}
      <Clashes
        clashes={clashes}
        nameOf={(place) => names[place.split(".")[0] as ListName] ?? place}
        onChoose={edit.choose}
      />
      {clashes.length === 0 && findings.size === 0 && <Failure error={edit.error} />}
      <p className="mt-4 text-slate">
        {(list === "services" || list === "sources") && "A published form keeps the list it was published with. "}
        <span role="status" className="font-semibold text-moss">
          {edit.isSaving ? "Saving …" : edit.wasSaved ? "Saved." : ""}
        </span>
      </p>
    </div>
  );
}

interface ListProps<T extends { key: string; name: string }> {
  name: ListName;
  /** What one line is called. */
  one: string;
  help: string;
  add: string;
  lines: T[];
  fresh: () => T;
  findings: Map<string, string>;
  onChange: (lines: T[]) => void;
  onSave: (lines: T[]) => void;
  more?: (line: T, change: (line: T) => void, index: number) => ReactNode;
  /** What stands under a line. */
  under?: (line: T, change: (line: T) => void, index: number) => ReactNode;
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
  const { name, one, lines, findings, onChange, onSave } = props;
  const list = useRef<HTMLDivElement>(null);
  /** A line that was moved or taken away is saved at once; a new one once it has a name and is left. */
  const setAndSave = (next: T[]) => {
    onChange(next);
    onSave(named(next));
  };
  const leave = (event: FocusEvent<HTMLDivElement>) => {
    if (!event.currentTarget.contains(event.relatedTarget)) onSave(named(lines));
  };
  const add = () => {
    onChange([...lines, props.fresh()]);
    requestAnimationFrame(() => list.current?.lastElementChild?.querySelector("input")?.focus());
  };
  return (
    <>
      <h2 className="text-lead">{names[name]}</h2>
      <p className="mb-3 text-slate">{props.help}</p>
      <div ref={list} className="grid gap-2">
        {lines.map((line, index) => {
          const wrong = ["name", "startsAt", "leadWeeks", "bookingWeeks", "area", "about"]
            .map((member) => findings.get(`${name}.${index}.${member}`))
            .find((sentence) => sentence !== undefined);
          const change = (next: T) => onChange(lines.with(index, next));
          const called = line.name || `${one.toLowerCase()} ${index + 1}`;
          return (
            <div key={line.key || index} onBlur={leave}>
              <div className="flex flex-wrap items-center gap-2">
                <span className="min-w-40 flex-1">
                  <input
                    aria-label={`${one} ${index + 1}`}
                    className={boxLook}
                    value={line.name}
                    aria-invalid={wrong ? true : undefined}
                    onChange={(e) => change({ ...line, name: e.target.value })}
                    onKeyDown={(e) => e.key === "Enter" && onSave(named(lines))}
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
                        aria-label={`Move ${called} ${where}`}
                        disabled={to < 0 || to >= lines.length}
                        onClick={() => setAndSave(lines.with(index, lines[to]!).with(to, line))}
                      >
                        {where === "up" ? <ArrowUp size={16} aria-hidden /> : <ArrowDown size={16} aria-hidden />}
                      </Button>
                    );
                  })}
                </span>
                <Button
                  weight="quiet"
                  aria-label={`Remove ${called}`}
                  onClick={() => setAndSave(lines.toSpliced(index, 1))}
                >
                  Remove
                </Button>
              </div>
              {props.under?.(line, change, index)}
              {wrong && <p className="font-semibold text-brick">{wrong}</p>}
            </div>
          );
        })}
      </div>
      {findings.has(name) && <p className="font-semibold text-brick">{findings.get(name)}</p>}
      <Button className="mt-3" onClick={add}>
        {props.add}
      </Button>
    </>
  );
}

/** Without new lines at the end that have no name yet: they are not finished. */
function named<T extends { name: string }>(lines: T[]): T[] {
  const last = lines.findLastIndex((line) => line.name.trim() !== "");
  return lines.slice(0, last + 1);
}
