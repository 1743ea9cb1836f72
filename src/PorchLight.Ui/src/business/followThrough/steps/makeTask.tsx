import { Labelled, SelectBox } from "../../../kit/fields";
import { NumberBox } from "../../../kit/NumberBox";
import { KnownWordsBox } from "../../messages/KnownWordsBox";
import { known } from "../../messages/MessageFields";
import { Offered } from "../Offered";
import type { FieldsProps, StepKind } from "./stepKind";

const Fields = ({ value, choices, onChange }: FieldsProps<"makeTask">) => (
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
);

export const makeTask: StepKind<"makeTask"> = {
  label: "Make a task",
  begin: () => ({ kind: "makeTask", title: "", dueAfterWorkingDays: 1, for: null }),
  Fields,
};
