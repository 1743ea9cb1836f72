import { useDeferredValue } from "react";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { ask, askOnce } from "../../api/ask";
import { api } from "../../api/client";
import { orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { CopyBox } from "../../kit/CopyBox";
import { boxLook, CheckBox, GrowingText, Labelled, SelectBox, TextBox } from "../../kit/fields";
import { NumberBox } from "../../kit/NumberBox";
import { Page } from "../../kit/Page";
import { Failure, Skeleton } from "../../kit/states";
import { SavedForm } from "../saving/SavedForm";
import { useEdit } from "../saving/useEdit";
import { useSession } from "../shell/session";
import { useTitle } from "../shell/useTitle";
import { WeekFields } from "../shell/WeekFields";

type View = Schemas["MeetingTypeView"];
type Rules = Required<Schemas["SlotRules"]>;
/** What is stored says all of itself. */
type Type = Required<Omit<Schemas["MeetingType"], "rules">> & { rules: Rules };
interface Value {
  type: Type;
  hours: Schemas["WeekWords"] | null;
}
type PlaceKind = Schemas["MeetingPlaceKind"];

/** A meeting type: what it is, where, with whom and when it can be. */
export function MeetingTypePage() {
  const { id = "" } = useParams();
  const query = useQuery({
    ...askOnce(["meeting-type", id, "edited"], () => api.GET("/api/meeting-types/{id}", { params: { path: { id } } })),
    refetchOnMount: "always",
  });
  useTitle(query.data?.value.type.name);
  const back = (
    <Link to="/calendar/types" className="underline">
      Meeting types
    </Link>
  );
  // What is edited starts from what is stored now, never from what was seen the last time.
  if (!query.data || !query.isFetchedAfterMount)
    return (
      <Page title="Meeting type" back={back}>
        {query.error ? <Failure error={query.error} /> : <Skeleton rows={6} />}
      </Page>
    );
  return (
    <Page title={query.data.value.type.name} back={back}>
      <Desk key={id} view={query.data} />
    </Page>
  );
}

const placeNames: [PlaceKind, string][] = [
  ["phone", "By phone"],
  ["video", "By video"],
  ["ours", "At your place"],
  ["theirs", "At their place"],
];
const placeParts: Record<string, string> = {
  name: "Name",
  purpose: "What it is for",
  rules: "When it can be",
  hours: "Its own hours",
  places: "Places",
  hosts: "Who holds it",
  questions: "Questions",
};

function Desk({ view }: { view: View }) {
  const { role } = useSession();
  const queries = useQueryClient();
  const edit = useEdit(
    view.value as Value,
    async (body) =>
      (await orProblem(api.PUT("/api/meeting-types/{id}", { params: { path: { id: view.id } }, body }))) as Value,
  );
  const { type, hours } = edit.now;
  const set = (part: Partial<Type>) => edit.change({ type: { ...type, ...part } });
  const setRules = (part: Partial<Rules>) => set({ rules: { ...type.rules, ...part } });
  const findings = edit.findings;
  const archive = useMutation({
    mutationFn: (archived: boolean) =>
      orProblem(
        api.POST("/api/meeting-types/{id}/archiving", { params: { path: { id: view.id } }, body: { archived } }),
      ),
    onSuccess: () => void queries.invalidateQueries({ queryKey: ["meeting-type", view.id, "edited"] }),
  });
  const notice = useQuery({
    ...ask(["notice", useDeferredValue(type.rules.notice)], () =>
      api.GET("/api/meeting-types/notice", { params: { query: type.rules.notice } }),
    ),
    placeholderData: keepPreviousData,
  });
  if (role !== "owner") return <p>Only the owner changes meeting types. You find the link to book it in the list.</p>;
  return (
    <div className="grid items-start gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <SavedForm edit={edit} nameOf={(place) => placeParts[place.split(".").at(-1) ?? ""] ?? "This meeting type"}>
        {view.note && <p className="mb-4 border-l-4 border-brick pl-2 font-semibold text-brick">{view.note}</p>}
        <div className="grid gap-5">
          <TextBox
            label="Name"
            value={type.name}
            error={findings.get("name")}
            onChange={(e) => set({ name: e.target.value })}
          />
          <Labelled label="What it is for" help="People read it above the times." error={findings.get("purpose")}>
            <GrowingText className={boxLook} value={type.purpose} onChange={(e) => set({ purpose: e.target.value })} />
          </Labelled>
          <Places type={type} findings={findings} onChange={(places) => set({ places })} />
          <Hosts type={type} people={view.people} findings={findings} set={set} setRules={setRules} />
          <fieldset className="grid gap-3 border-t border-line pt-4">
            <legend className="sr-only">When it can be</legend>
            <p className="flex flex-wrap items-center gap-2">
              It lasts
              <NumberBox
                whole
                aria-label="Minutes"
                value={type.rules.minutes}
                onChange={(minutes) => setRules({ minutes: minutes ?? 0 })}
              />
              minutes and can begin every
              <select
                aria-label="Begins every"
                className="rounded-soft border border-edge bg-card px-2 py-1.5"
                value={type.rules.grid}
                onChange={(e) => setRules({ grid: Number(e.target.value) })}
              >
                {[5, 10, 15, 20, 30, 60].map((minutes) => (
                  <option key={minutes} value={minutes}>
                    {minutes} minutes
                  </option>
                ))}
              </select>
            </p>
            <Wrong text={findings.get("minutes") ?? findings.get("grid")} />
            <p className="flex flex-wrap items-center gap-2">
              Keep
              <NumberBox
                whole
                aria-label="Minutes before"
                value={type.rules.bufferBefore}
                onChange={(minutes) => setRules({ bufferBefore: minutes ?? 0 })}
              />
              minutes free before and
              <NumberBox
                whole
                aria-label="Minutes after"
                value={type.rules.bufferAfter}
                onChange={(minutes) => setRules({ bufferAfter: minutes ?? 0 })}
              />
              after.
            </p>
            <Wrong text={findings.get("buffers")} />
            <p className="flex flex-wrap items-center gap-2">
              It has to be booked at least
              <NumberBox
                whole
                aria-label="Notice"
                value={type.rules.notice.count}
                onChange={(count) => setRules({ notice: { ...type.rules.notice, count: count ?? 0 } })}
              />
              <select
                aria-label="Notice in"
                className="rounded-soft border border-edge bg-card px-2 py-1.5"
                value={type.rules.notice.inDays ? "days" : "hours"}
                onChange={(e) => setRules({ notice: { ...type.rules.notice, inDays: e.target.value === "days" } })}
              >
                <option value="hours">hours</option>
                <option value="days">whole days</option>
              </select>
              ahead, and at most
              <NumberBox
                whole
                aria-label="Days ahead"
                value={type.rules.horizonDays}
                onChange={(days) => setRules({ horizonDays: days ?? 0 })}
              />
              days.
            </p>
            <p className="text-slate" role="status">
              {notice.data?.sentence ?? view.notice}
            </p>
            <Wrong text={findings.get("notice") ?? findings.get("horizonDays")} />
            <p className="flex flex-wrap items-center gap-2">
              At most
              <NumberBox
                whole
                aria-label="Most a day"
                value={type.rules.mostADay}
                onChange={(mostADay) => setRules({ mostADay })}
              />
              a day and
              <NumberBox
                whole
                aria-label="Most a week"
                value={type.rules.mostAWeek}
                onChange={(mostAWeek) => setRules({ mostAWeek })}
              />
              a week. Leave them empty for any number.
            </p>
            <Wrong text={findings.get("most")} />
            <p className="flex flex-wrap items-center gap-2">
              Whoever booked can move or cancel it until
              <NumberBox
                whole
                aria-label="Hours before"
                value={type.changeHours}
                onChange={(changeHours) => set({ changeHours: changeHours ?? 0 })}
              />
              hours before.
            </p>
            <Wrong text={findings.get("changeHours")} />
            <CheckBox
              label="Only at hours of its own"
              help="Within the hours of whoever holds it. Otherwise at any of theirs."
              checked={hours !== null}
              onChange={(on) => edit.change({ hours: on ? nineToFive : null })}
            />
            {hours && (
              <WeekFields
                value={hours}
                findings={findings}
                onChange={(part) => edit.change({ hours: { ...hours, ...part } })}
              />
            )}
          </fieldset>
          <Questions type={type} findings={findings} onChange={(questions) => set({ questions })} />
          <SelectBox
            label="Who can book it"
            value={type.whoMayBook}
            onChange={(e) => set({ whoMayBook: e.target.value as Type["whoMayBook"] })}
          >
            <option value="anybody">Anyone with the link</option>
            <option value="personalLink">Only people to whom you give a link of their own</option>
            <option value="afterSendOff">Only people who reach a send-off that offers it</option>
          </SelectBox>
          <TextBox
            label="Title in calendars"
            help="You can use {client}, {type} and {answer:key}. Leave it empty for the name and the client."
            value={type.title}
            error={findings.get("title")}
            onChange={(e) => set({ title: e.target.value })}
          />
          <SelectBox
            label="Sets a date of the project"
            help="When it is booked or moved, its day is written there."
            value={type.writesDate ?? ""}
            error={findings.get("writesDate")}
            onChange={(e) => set({ writesDate: e.target.value || null })}
          >
            <option value="">None</option>
            {view.dates.map((date) => (
              <option key={date.key} value={date.key}>
                {date.label}
              </option>
            ))}
          </SelectBox>
          <CheckBox
            label="Paused"
            help="The link says that nothing can be booked at the moment. What is booked stays."
            checked={type.isPaused}
            onChange={(isPaused) => set({ isPaused })}
          />
        </div>
      </SavedForm>
      <aside aria-label="Its link" className="grid gap-3">
        <CopyBox label="Link" help="Put it on your page or below your mails." text={view.link} rows={2} />
        <p>
          <a className={buttonLook("plain")} href={view.link} target="_blank" rel="noreferrer">
            See it as they do
          </a>
        </p>
        <p>
          <Button weight="quiet" disabled={archive.isPending} onClick={() => archive.mutate(!view.isArchived)}>
            {view.isArchived ? "Take it out of the archive" : "Archive"}
          </Button>
        </p>
        <Failure error={archive.error} />
      </aside>
    </div>
  );
}

const nineToFive: Schemas["WeekWords"] = {
  monday: "9-5",
  tuesday: "9-5",
  wednesday: "9-5",
  thursday: "9-5",
  friday: "9-5",
  saturday: "",
  sunday: "",
};

const Wrong = ({ text }: { text: string | undefined }) =>
  text ? <p className="font-semibold text-brick">{text}</p> : null;

interface PartProps {
  type: Type;
  findings: Map<string, string>;
}

function Places({ type, findings, onChange }: PartProps & { onChange: (places: Type["places"]) => void }) {
  const offered = (kind: PlaceKind) => type.places.find((place) => place.kind === kind);
  return (
    <fieldset>
      <legend className="font-semibold">Where</legend>
      <p className="text-slate">With several, whoever books chooses, and gives their number or address.</p>
      {placeNames.map(([kind, name]) => {
        const place = offered(kind);
        return (
          <div key={kind}>
            <CheckBox
              label={name}
              checked={!!place}
              onChange={(on) =>
                onChange(on ? [...type.places, { kind, address: "" }] : type.places.filter((one) => one.kind !== kind))
              }
            />
            {place && (kind === "ours" || kind === "video") && (
              <span className="mt-1 block pl-8">
                <TextBox
                  label={kind === "ours" ? "Your address" : "Address of the call"}
                  help={kind === "video" ? "Leave it empty if you send it later." : undefined}
                  value={place.address}
                  error={findings.get(`places.${kind}`)}
                  onChange={(e) =>
                    onChange(type.places.map((one) => (one.kind === kind ? { ...one, address: e.target.value } : one)))
                  }
                />
              </span>
            )}
          </div>
        );
      })}
      <Wrong text={findings.get("places")} />
    </fieldset>
  );
}

interface HostProps extends PartProps {
  people: View["people"];
  set: (part: Partial<Type>) => void;
  setRules: (part: Partial<Rules>) => void;
}

function Hosts({ type, people, findings, set, setRules }: HostProps) {
  const here = type.hosts.filter((host) => people.some((one) => one.id === host));
  return (
    <fieldset>
      <legend className="font-semibold">Who holds it</legend>
      {people.map((one) => (
        <CheckBox
          key={one.id}
          label={one.name}
          checked={here.includes(one.id)}
          onChange={(on) => set({ hosts: on ? [...here, one.id] : here.filter((host) => host !== one.id) })}
        />
      ))}
      {here.length > 1 && (
        <span className="mt-2 block">
          <SelectBox
            label="Of these"
            value={type.rules.hostChoice}
            onChange={(e) => setRules({ hostChoice: e.target.value as Type["rules"]["hostChoice"] })}
          >
            <option value="anyOfThem">any one who is free, whoever has fewest that week</option>
            <option value="allTogether">all together</option>
          </SelectBox>
        </span>
      )}
      <Wrong text={findings.get("hosts")} />
    </fieldset>
  );
}

function Questions({ type, findings, onChange }: PartProps & { onChange: (questions: Type["questions"]) => void }) {
  const add = () => {
    let number = 1;
    while (type.questions.some((question) => question.key === `question-${number}`)) number++;
    onChange([...type.questions, { key: `question-${number}`, wording: "", isRequired: false }]);
  };
  const change = (key: string, part: Partial<Type["questions"][number]>) =>
    onChange(type.questions.map((question) => (question.key === key ? { ...question, ...part } : question)));
  return (
    <fieldset>
      <legend className="font-semibold">What you ask</legend>
      <p className="mb-2 text-slate">
        Beside name, e-mail and where. People who come by a link of their own are not asked who they are.
      </p>
      <ul className="grid gap-3">
        {type.questions.map((question, index) => (
          <li key={question.key} className="grid gap-1">
            <span className="flex gap-2">
              <input
                aria-label={`Question ${index + 1}`}
                className={boxLook}
                value={question.wording}
                aria-invalid={findings.has(`questions.${index}`) || undefined}
                onChange={(e) => change(question.key, { wording: e.target.value })}
              />
              <Button
                weight="quiet"
                aria-label={`Remove question ${index + 1}`}
                onClick={() => onChange(type.questions.filter((one) => one !== question))}
              >
                Remove
              </Button>
            </span>
            <CheckBox
              label="It has to be answered"
              checked={question.isRequired}
              onChange={(isRequired) => change(question.key, { isRequired })}
            />
            <Wrong text={findings.get(`questions.${index}`)} />
          </li>
        ))}
      </ul>
      <Wrong text={findings.get("questions")} />
      <Button className="mt-2" onClick={add}>
        Add a question
      </Button>
    </fieldset>
  );
}
