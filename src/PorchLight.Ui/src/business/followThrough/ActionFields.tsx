import type { ReactNode } from "react";
import type { Schemas } from "../../api/problem";
import { CheckBox, Labelled, SelectBox, TextBox, boxLook } from "../../kit/fields";
import { NumberBox } from "../../kit/NumberBox";
import { ConditionSentence } from "../conditions/ConditionSentence";
import { FromLibrary } from "../messages/FromLibrary";
import { KnownWordsBox } from "../messages/KnownWordsBox";
import { known, MessageFields } from "../messages/MessageFields";
import { OccasionPicker } from "./OccasionPicker";
import { subjectsOf } from "./subjectsOf";
import type { Choices, Step, StepAction } from "./useFollowThrough";

type Named<K extends StepAction["kind"]> = Extract<StepAction, { kind: K }>;

interface Props {
  action: StepAction;
  choices: Choices;
  /** Whether it follows a form that somebody left half-finished. */
  isAboutLeftForm: boolean;
  /** The steps behind it, where it may go on. */
  later: Step[];
  onChange: (action: StepAction) => void;
}

/** What a step does, in full. */
export function ActionFields({ action, choices, isAboutLeftForm, later, onChange }: Props) {
  const fields: { [K in StepAction["kind"]]: (value: Named<K>) => ReactNode } = {
    sendMessage: (value) => (
      <>
        <FromLibrary
          label="Use a message from the library"
          help="You can then change them for this step only."
          onTake={(message, takenFrom) => onChange({ ...value, message: { ...message, takenFrom } })}
        />
        <MessageFields
          message={value.message}
          choices={isAboutLeftForm ? [...choices.ofLeftForm, ...known] : known}
          onChange={(message) => onChange({ ...value, message })}
        />
        <SelectBox
          label="How it reaches them"
          help={ways[value.channel ?? "mail"]}
          value={value.channel ?? "mail"}
          onChange={(e) => onChange({ ...value, channel: e.target.value as Schemas["Channel"] })}
        >
          <option value="mail">By mail</option>
          <option value="text">As a text message</option>
          <option value="pageNote">As a note on their page</option>
        </SelectBox>
        <CheckBox
          label="This is advertising: only sent to people who agreed to news, with a way to unsubscribe"
          help="A message about their own inquiry or project is not advertising. Offers they did not ask for, seasonal greetings and news are."
          checked={value.isAdvertising ?? false}
          onChange={(isAdvertising) => onChange({ ...value, isAdvertising })}
        />
      </>
    ),
    makeTask: (value) => (
      <>
        <KnownWordsBox
          label="Task"
          choices={known}
          value={value.title}
          onChange={(title) => onChange({ ...value, title })}
        />
        <Labelled label="Within how many working days" help="0 for the same day.">
          <NumberBox
            whole
            value={value.dueAfterWorkingDays}
            onChange={(days) => days !== null && onChange({ ...value, dueAfterWorkingDays: days })}
          />
        </Labelled>
        <SelectBox
          label="Who does it"
          value={value.for ?? ""}
          onChange={(e) => onChange({ ...value, for: e.target.value || null })}
        >
          <option value="">Who looks after the project</option>
          <Offered choices={choices.people} chosen={value.for} />
        </SelectBox>
      </>
    ),
    moveStage: (value) => (
      <>
        <SelectBox
          label="The stage"
          value={value.stage}
          onChange={(e) => onChange({ ...value, stage: e.target.value, parkedDays: null })}
        >
          <Offered choices={choices.stages} chosen={value.stage} />
        </SelectBox>
        {choices.stages.find((one) => one.key === value.stage)?.kind === "parked" && (
          <Labelled label="For how many days" help="It then comes back automatically. Leave empty for no end date.">
            <NumberBox whole value={value.parkedDays} onChange={(parkedDays) => onChange({ ...value, parkedDays })} />
          </Labelled>
        )}
      </>
    ),
    setField: (value) => <FieldValueFields value={value} choices={choices} onChange={onChange} />,
    handOver: (value) => (
      <>
        <SelectBox
          label="Who takes it over"
          value={value.to}
          onChange={(e) => onChange({ ...value, to: e.target.value })}
        >
          <Offered choices={choices.people} chosen={value.to} />
        </SelectBox>
        <CheckBox
          label="The person who looked after it keeps watching and gets a mail about anything new"
          checked={value.keepWatching ?? false}
          onChange={(keepWatching) => onChange({ ...value, keepWatching })}
        />
      </>
    ),
    tellTeam: (value) => (
      <>
        <fieldset>
          <legend className="font-semibold">Who is told</legend>
          {choices.people.map((one) => (
            <CheckBox
              key={one.key}
              label={one.name}
              checked={value.users.includes(one.key)}
              onChange={(on) =>
                onChange({
                  ...value,
                  users: on ? [...value.users, one.key] : value.users.filter((user) => user !== one.key),
                })
              }
            />
          ))}
        </fieldset>
        <TextBox
          label="Someone outside the team"
          help="Someone who helps you but has no account here. Leave empty for none."
          type="email"
          value={value.outside ?? ""}
          onChange={(e) => onChange({ ...value, outside: e.target.value || null })}
        />
        <KnownWordsBox
          label="Subject"
          choices={known}
          value={value.subject}
          onChange={(subject) => onChange({ ...value, subject })}
        />
        <KnownWordsBox
          label="What they read"
          lines="several"
          choices={known}
          value={value.text}
          onChange={(text) => onChange({ ...value, text })}
        />
      </>
    ),
    postToChat: (value) => (
      <KnownWordsBox
        label="What the team reads"
        lines="several"
        choices={known}
        value={value.text}
        onChange={(text) => onChange({ ...value, text })}
      />
    ),
    callWebhook: (value) => (
      <SelectBox
        label="Which webhook"
        help="It receives what is on file about the client and the project. The owner sets up webhooks in Settings."
        value={value.webhook}
        onChange={(e) => onChange({ ...value, webhook: e.target.value })}
      >
        <Offered choices={choices.webhooks} chosen={value.webhook} />
      </SelectBox>
    ),
    startAnother: (value) => (
      <SelectBox
        label="What starts"
        help="This one then ends, unless both may run side by side."
        value={value.followThrough}
        onChange={(e) => onChange({ ...value, followThrough: e.target.value })}
      >
        <Offered choices={choices.others} chosen={value.followThrough} />
      </SelectBox>
    ),
    unwritten: (value) => (
      <TextBox
        label="What is still to be written"
        help="Describe what the client will see. The follow-through cannot be put into force until this step is written."
        value={value.what}
        onChange={(e) => onChange({ ...value, what: e.target.value })}
      />
    ),
    waitFor: (value) => (
      <>
        <OccasionPicker
          label="Until"
          occasion={value.on}
          stages={choices.stages}
          onChange={(on) => onChange({ ...value, on })}
        />
        <Target
          label="If time runs out, continue at"
          later={later}
          value={value.otherwise}
          onChange={(otherwise) => onChange({ ...value, otherwise })}
        />
      </>
    ),
    branch: (value) => (
      <>
        <ConditionSentence
          value={isEmpty(value.if) ? null : value.if}
          onChange={(next) => onChange({ ...value, if: next ?? { kind: "all", parts: [] } })}
          subjects={subjectsOf(choices)}
          without="Choose what decides."
          begin="If …"
          label="If"
        />
        <Target
          label="then continue at"
          later={later}
          value={value.then}
          onChange={(then) => onChange({ ...value, then })}
        />
        <Target
          label="if not, or if it is not known, go to"
          later={later}
          value={value.otherwise}
          onChange={(otherwise) => onChange({ ...value, otherwise })}
        />
      </>
    ),
    end: () => <p className="text-slate">The follow-through ends here. Later steps are only reached by a branch.</p>,
  };
  // Which function it is hangs on the kind it is called with; the compiler cannot see that.
  return <>{(fields[action.kind] as (value: StepAction) => ReactNode)(action)}</>;
}

const ways: Record<Schemas["Channel"], string> = {
  mail: "A mail about their own inquiry or project needs no permission.",
  text: "Only sent to people who agreed to text messages. No subject; keep it short.",
  pageNote: "Shown on their own page, without the subject.",
};

const isEmpty = (condition: Schemas["Condition"]) => condition.kind === "all" && condition.parts.length === 0;

interface TargetProps {
  label: string;
  later: Step[];
  value: string | null | undefined;
  onChange: (key: string | null) => void;
}

function Target({ label, later, value, onChange }: TargetProps) {
  return (
    <SelectBox label={label} value={value ?? ""} onChange={(e) => onChange(e.target.value || null)}>
      <option value="">the next step</option>
      <Offered choices={later} chosen={value} />
    </SelectBox>
  );
}

/** What can be chosen, and what was chosen before it went away. */
export function Offered(props: { choices: { key: string; name: string }[]; chosen: string | null | undefined }) {
  const { choices, chosen } = props;
  return (
    <>
      {chosen && !choices.some((one) => one.key === chosen) && <option value={chosen}>choose …</option>}
      {choices.map((one) => (
        <option key={one.key} value={one.key}>
          {one.name || "a step without a name"}
        </option>
      ))}
    </>
  );
}

type FillField = Named<"setField">;

function FieldValueFields(props: { value: FillField; choices: Choices; onChange: (action: FillField) => void }) {
  const { value, choices, onChange } = props;
  const field = choices.fields.find((one) => one.key === value.field);
  const isDate = field?.kind === "date";
  return (
    <>
      <SelectBox
        label="The field"
        value={value.field}
        onChange={(e) => {
          const next = choices.fields.find((one) => one.key === e.target.value);
          onChange({
            ...value,
            field: e.target.value,
            value:
              next?.kind === "date"
                ? null
                : next?.kind === "yesNo"
                  ? { kind: "yesNo", yes: true }
                  : { kind: "text", text: "" },
          });
        }}
      >
        <Offered choices={choices.fields.map((one) => ({ key: one.key, name: one.label }))} chosen={value.field} />
      </SelectBox>
      {isDate && <p className="text-slate">Set to the day this step is done.</p>}
      {value.value?.kind === "yesNo" && (
        <SelectBox
          label="What it is set to"
          value={value.value.yes ? "yes" : "no"}
          onChange={(e) => onChange({ ...value, value: { kind: "yesNo", yes: e.target.value === "yes" } })}
        >
          <option value="yes">Yes</option>
          <option value="no">No</option>
        </SelectBox>
      )}
      {!isDate && value.value?.kind === "text" && (
        <Labelled label="What it is set to">
          <input
            className={boxLook}
            value={value.value.text}
            onChange={(e) => onChange({ ...value, value: { kind: "text", text: e.target.value } })}
          />
        </Labelled>
      )}
    </>
  );
}
