import { KnownWordsBox } from "../../messages/KnownWordsBox";
import { known } from "../../messages/MessageFields";
import type { FieldsProps, StepKind } from "./stepKind";

const Fields = ({ value, onChange }: FieldsProps<"postToChat">) => (
  <KnownWordsBox
    label="What the team reads"
    lines="several"
    choices={known}
    value={value.text}
    onChange={(text) => onChange({ ...value, text })}
  />
);

export const postToChat: StepKind<"postToChat"> = {
  label: "Post to the team chat",
  begin: () => ({ kind: "postToChat", text: "" }),
  Fields,
};
