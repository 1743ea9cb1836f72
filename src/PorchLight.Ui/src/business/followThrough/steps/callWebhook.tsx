import { SelectBox } from "../../../kit/fields";
import { Offered } from "../Offered";
import { noId, type FieldsProps, type StepKind } from "./stepKind";

const Fields = ({ value, choices, onChange }: FieldsProps<"callWebhook">) => (
  <SelectBox
    label="Which webhook"
    help="It receives what is on file about the client and the project. The owner sets up webhooks in Settings."
    value={value.webhook}
    onChange={(e) => onChange({ ...value, webhook: e.target.value })}
  >
    <Offered choices={choices.webhooks} chosen={value.webhook} />
  </SelectBox>
);

export const callWebhook: StepKind<"callWebhook"> = {
  label: "Call a webhook",
  begin: (choices) => ({ kind: "callWebhook", webhook: choices.webhooks[0]?.key ?? noId }),
  Fields,
};
