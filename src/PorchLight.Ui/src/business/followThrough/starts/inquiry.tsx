import { CheckBox, SelectBox } from "../../../kit/fields";
import { fits } from "../../../kit/fits";
import { ConditionSentence } from "../../conditions/ConditionSentence";
import { Offered } from "../Offered";
import { subjectsOf } from "../subjectsOf";
import type { FieldsProps, StartKind } from "./startKind";

const Fields = ({ start, choices, onChange }: FieldsProps<"inquiry">) => (
  <>
    <SelectBox
      label="Through"
      value={start.form ?? ""}
      onChange={(e) => onChange({ ...start, form: e.target.value || null })}
    >
      <option value="">any form</option>
      <Offered choices={choices.forms} chosen={start.form} />
    </SelectBox>
    <fieldset>
      <legend className="font-semibold">Sorted as</legend>
      <p className="text-slate">Choose none to include every inquiry.</p>
      {fits.map(([fit, words]) => (
        <CheckBox
          key={fit}
          label={words}
          checked={start.fits.includes(fit)}
          onChange={(on) =>
            onChange({ ...start, fits: on ? [...start.fits, fit] : start.fits.filter((one) => one !== fit) })
          }
        />
      ))}
    </fieldset>
    {choices.services.length > 0 && (
      <SelectBox
        label="For"
        value={start.service ?? ""}
        onChange={(e) => onChange({ ...start, service: e.target.value || null })}
      >
        <option value="">any service</option>
        <Offered choices={choices.services} chosen={start.service} />
      </SelectBox>
    )}
    <ConditionSentence
      value={start.condition}
      onChange={(condition) => onChange({ ...start, condition })}
      subjects={subjectsOf(choices)}
      without="Whatever they answered."
      begin="Only if they answered …"
      label="Only if"
    />
  </>
);

export const inquiry: StartKind<"inquiry"> = {
  label: "an inquiry comes in",
  begin: () => ({ kind: "inquiry", form: null, fits: [] }),
  Fields,
};
