import type { Schemas } from "../../../api/problem";
import { CheckBox, SelectBox } from "../../../kit/fields";
import { FromLibrary } from "../../messages/FromLibrary";
import { known, MessageFields } from "../../messages/MessageFields";
import type { FieldsProps, StepKind } from "./stepKind";

const Fields = ({ value, choices, isAboutUnfinishedForm, onChange }: FieldsProps<"sendMessage">) => (
  <>
    <FromLibrary
      label="Use a message from the library"
      help="You can then change them for this step only."
      onTake={(message, takenFrom) => onChange({ ...value, message: { ...message, takenFrom } })}
    />
    <MessageFields
      message={value.message}
      choices={isAboutUnfinishedForm ? [...choices.ofUnfinishedForm, ...known] : known}
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
);

const ways: Record<Schemas["Channel"], string> = {
  mail: "A mail about their own inquiry or project needs no permission.",
  text: "Only sent to people who agreed to text messages. No subject; keep it short.",
  pageNote: "Shown on their own page, without the subject.",
};

export const sendMessage: StepKind<"sendMessage"> = {
  label: "Send a message",
  needsNod: true,
  begin: () => ({
    kind: "sendMessage",
    channel: "mail",
    isAdvertising: false,
    message: {
      subject: "",
      parts: [{ kind: "text", key: "text", text: "Dear {firstName},\n\n\n\nWarmly\n{owner}\n{business}" }],
    },
  }),
  Fields,
};
