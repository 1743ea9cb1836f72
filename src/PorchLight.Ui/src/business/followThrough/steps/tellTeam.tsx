import { CheckBox, TextBox } from "../../../kit/fields";
import { FormattedBox } from "../../messages/FormattedBox";
import { KnownWordsBox } from "../../messages/KnownWordsBox";
import { known } from "../../messages/MessageFields";
import type { FieldsProps, StepKind } from "./stepKind";

const Fields = ({ value, choices, onChange }: FieldsProps<"tellTeam">) => (
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
    <FormattedBox
      label="What they read"
      choices={known}
      value={value.text}
      onChange={(text) => onChange({ ...value, text })}
    />
  </>
);

export const tellTeam: StepKind<"tellTeam"> = {
  label: "Tell someone by mail",
  begin: () => ({ kind: "tellTeam", users: [], outside: null, subject: "", text: "" }),
  Fields,
};
