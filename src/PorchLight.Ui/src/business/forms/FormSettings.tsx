import { DayBox } from "../../kit/DayBox";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { boxLook, CheckBox, GrowingText, SelectBox, TextBox } from "../../kit/fields";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { say } from "../shell/say";
import { useEdit } from "../saving/useEdit";
import { PromiseFields } from "../shell/businessFields";
import { SavedForm } from "../saving/SavedForm";
import { MonthLimits } from "./MonthLimits";
import { OwnMessages } from "./OwnMessages";
import { SettingsPart } from "./SettingsPart";

type Values = Required<Schemas["FormSettings"]>;

/** What holds for a form beside its words, at once and for every version. */
export function FormSettings({ id }: { id: string }) {
  const settings = useQuery({
    ...ask(["form-settings", id], () => api.GET("/api/forms/{id}/settings", { params: { path: { id } } })),
    refetchOnMount: "always",
  });
  if (!settings.data || !settings.isFetchedAfterMount)
    return settings.error ? <Failure error={settings.error} /> : <Skeleton rows={6} />;
  return (
    <div className="grid gap-6">
      <ServiceOfForm id={id} />
      <Fields id={id} view={settings.data} />
      <OwnMessages form={id} />
    </div>
  );
}

/** Which of the business's services the form asks about; kept as soon as it is chosen. */
function ServiceOfForm({ id }: { id: string }) {
  const params = { path: { id } };
  const service = useQuery(ask(["form-service", id], () => api.GET("/api/forms/{id}/service", { params })));
  const set = useMutation({
    mutationFn: (key: string | null) =>
      orProblem(api.PUT("/api/forms/{id}/service", { params, body: { service: key } })),
    onSuccess: () => {},
  });
  if (!service.data) return <Failure error={service.error} />;
  return (
    <section aria-label="Its service" className="rounded-soft bg-card p-6 shadow-soft">
      <SelectBox
        label="Which service it asks about"
        help={
          service.data.services.length === 0 ? "Your settings list no services yet." : "Shown in your list of forms."
        }
        value={service.data.service ?? ""}
        onChange={(e) => set.mutate(e.target.value || null)}
      >
        <option value="">none in particular</option>
        {service.data.services.map((one) => (
          <option key={one.key} value={one.key}>
            {one.name}
          </option>
        ))}
      </SelectBox>
      <Failure error={set.error} />
    </section>
  );
}

const names: Record<string, string> = {
  firstDay: "First day",
  lastDay: "Last day",
  mostAnswers: "Close after this many answers",
  capacity: "Limits by month",
  admission: "Who may open it",
  guard: "Spam protection",
  embedOn: "Sites that may embed it",
  notified: "Who gets a mail",
  about: "What it is about",
};

function Fields({ id, view }: { id: string; view: Schemas["FormSettingsView"] }) {
  const queries = useQueryClient();
  const edit = useEdit(view.settings as Values, async (body) => {
    const next = await orProblem(api.PUT("/api/forms/{id}/settings", { params: { path: { id } }, body }));
    queries.setQueryData(["form-settings", id], next);
    return next.settings as Values;
  });
  const { now, findings } = edit;
  return (
    <SavedForm edit={edit} nameOf={(place) => names[place.split(".")[0]!] ?? place}>
      <div className="grid gap-x-10 gap-y-8 lg:grid-cols-2">
        <SettingsPart title="When it takes answers" note={`${view.words} ${say(view.received, "answer")} so far.`}>
          <div className="grid gap-3 sm:grid-cols-2">
            <DayBox
              label="First day"
              value={now.firstDay}
              error={findings.get("firstDay")}
              onChange={(firstDay) => edit.change({ firstDay })}
            />
            <DayBox
              label="Last day"
              value={now.lastDay}
              error={findings.get("lastDay")}
              onChange={(lastDay) => edit.change({ lastDay })}
            />
            <TextBox
              label="At most"
              type="number"
              min={1}
              placeholder="any number"
              value={now.mostAnswers ?? ""}
              error={findings.get("mostAnswers")}
              onChange={(e) =>
                edit.change({ mostAnswers: e.target.value === "" ? null : Math.trunc(Number(e.target.value)) })
              }
            />
          </div>
          <p className="mt-2 text-slate">
            Outside of these days, and after so many answers, people see the message while closed and can ask to be told
            when it is open again. {view.waiting > 0 && `${say(view.waiting, "person", "people")} asked for that.`}
          </p>
        </SettingsPart>
        <MonthLimits view={view} now={now} findings={findings} onChange={edit.change} />
        <SettingsPart title="Who can open it, and what it is about" note="">
          <SelectBox
            label="Who may open it"
            value={now.admission}
            onChange={(e) => edit.change({ admission: e.target.value as Values["admission"] })}
          >
            <option value="anyone">Anyone with the link</option>
            <option value="personalLink">Only people with a personal link</option>
            <option value="personalLinkAndCode">
              Only people with a personal link and a code sent to their own mail
            </option>
          </SelectBox>
          <div className="mt-4">
            <SelectBox
              label="What it is about"
              help="When an existing client sends it."
              value={now.about}
              onChange={(e) => edit.change({ about: e.target.value as Values["about"] })}
            >
              <option value="newWorkOrMore">A new piece of work, or more about the one they asked for here</option>
              <option value="newWork">A new piece of work each time</option>
              <option value="workInHand">The work you are doing for them already</option>
            </SelectBox>
          </div>
          <div className="mt-4">
            <span className="block font-semibold">Sites that may embed it</span>
            <span className="block text-slate">One a line, like https://www.example.com. Empty means any.</span>
            <GrowingText
              aria-label="Sites that may embed it"
              className={`${boxLook} mt-1`}
              value={now.embedOn.join("\n")}
              aria-invalid={findings.has("embedOn") ? true : undefined}
              onChange={(e) => edit.change({ embedOn: e.target.value.split("\n").map((line) => line.trim()) })}
              onBlur={() => edit.change({ embedOn: now.embedOn.filter(Boolean) })}
            />
            {findings.has("embedOn") && <p className="font-semibold text-brick">{findings.get("embedOn")}</p>}
          </div>
        </SettingsPart>
        <SettingsPart
          title="Spam protection"
          note="A hidden field that only programs fill in is always part of the form."
        >
          <TextBox
            label="Shortest time to fill in, in seconds"
            type="number"
            min={0}
            max={60}
            value={now.guard.leastSeconds}
            error={findings.get("guard.leastSeconds")}
            onChange={(e) => edit.change({ guard: { ...now.guard, leastSeconds: Math.trunc(Number(e.target.value)) } })}
          />
          <CheckBox
            label="Check the browser before sending"
            help="It takes a second or two on a phone, and makes sending in bulk expensive."
            checked={now.guard.proof}
            onChange={(proof) => edit.change({ guard: { ...now.guard, proof } })}
          />
          <CheckBox
            label="Accept answers from your developer's own HTML"
            help="Its spam protection is weaker: only the hidden field, no shortest time and no check in the browser."
            checked={now.takesPlainPosts}
            onChange={(takesPlainPosts) => edit.change({ takesPlainPosts })}
          />
        </SettingsPart>
        <SettingsPart
          title="People who do not finish"
          note="Anyone who saves the form for later can have the link sent."
        >
          <CheckBox
            label="You may write to them once more"
            help="People who ask for the link are told first. Nobody else is contacted."
            checked={now.followsUpUnfinished}
            onChange={(followsUpUnfinished) => edit.change({ followsUpUnfinished })}
          />
        </SettingsPart>
        <SettingsPart title="Reply promise" note="How quickly people who send this form get an answer.">
          <CheckBox
            label="A promise of its own"
            help="Without one, your business’s promise applies."
            checked={now.promise !== null}
            onChange={(on) => edit.change({ promise: on ? { hours: 24, clock: "workingDays" } : null })}
          />
          {now.promise && (
            <PromiseFields
              value={now.promise}
              findings={within("promise", findings)}
              onChange={(part) => edit.change({ promise: { ...now.promise!, ...part } })}
            />
          )}
        </SettingsPart>
        <SettingsPart
          title="Who gets a mail"
          note="For every inquiry, with its fit and a link. Everyone chooses when they get it: see “When you get mails” under your name."
        >
          {view.people.map((person) => (
            <CheckBox
              key={person.id}
              label={person.name}
              help={person.email}
              checked={now.notified.includes(person.id)}
              onChange={(on) =>
                edit.change({
                  notified: on ? [...now.notified, person.id] : now.notified.filter((one) => one !== person.id),
                })
              }
            />
          ))}
        </SettingsPart>
        <SettingsPart
          title="Left by an early way out"
          note={
            view.earlyExits.count === 0
              ? "Nobody has left this form before saying who they are."
              : `${say(view.earlyExits.count, "person", "people")} left this form before saying who they are. They are counted, but are not inquiries.`
          }
        >
          {view.earlyExits.latest.length > 0 && (
            <ul className="grid gap-2">
              {view.earlyExits.latest.map((one) => (
                <li key={one.id} className="border-l-2 border-line pl-3">
                  <p>
                    {one.at}: “{one.sendOff}”
                  </p>
                  <ul className="text-slate">
                    {one.answers.map((answer) => (
                      <li key={answer}>{answer}</li>
                    ))}
                  </ul>
                </li>
              ))}
            </ul>
          )}
        </SettingsPart>
        <SettingsPart
          title="Unfinished forms"
          note={
            view.unfinished === 0
              ? "Nobody has left this form to be finished later."
              : `${say(view.unfinished, "person", "people")} left this form to be finished later.`
          }
        >
          <p className="text-slate">How long they are kept is set in your business settings.</p>
        </SettingsPart>
      </div>
    </SavedForm>
  );
}

/** The findings about what lies within a place, by their place there. */
function within(place: string, findings: Map<string, string>): Map<string, string> {
  return new Map(
    [...findings]
      .filter(([at]) => at.startsWith(`${place}.`))
      .map(([at, words]) => [at.slice(place.length + 1), words]),
  );
}
