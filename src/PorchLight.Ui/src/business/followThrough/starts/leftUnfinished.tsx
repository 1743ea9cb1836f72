import { Labelled, SelectBox } from "../../../kit/fields";
import { NumberBox } from "../../../kit/NumberBox";
import { Offered } from "../Offered";
import type { FieldsProps, StartKind } from "./startKind";

const Fields = ({ start, choices, onChange }: FieldsProps<"leftUnfinished">) => (
  <>
    <SelectBox
      label="Which form"
      value={start.form ?? ""}
      onChange={(e) => onChange({ ...start, form: e.target.value || null })}
    >
      <option value="">any form</option>
      <Offered choices={choices.forms} chosen={start.form} />
    </SelectBox>
    <Labelled
      label="After how many hours"
      help="Anyone who left more than a day before that is left alone. Messages only go to people who were told to expect one."
    >
      <NumberBox whole value={start.hours} onChange={(hours) => hours !== null && onChange({ ...start, hours })} />
    </Labelled>
  </>
);

export const leftUnfinished: StartKind<"leftUnfinished"> = {
  label: "someone leaves a form half-finished",
  begin: () => ({ kind: "leftUnfinished", form: null, hours: 24 }),
  Fields,
};
