import { Labelled, SelectBox, boxLook } from "../../../kit/fields";
import { Offered } from "../Offered";
import type { FieldsProps, StepKind } from "./stepKind";

function Fields({ value, choices, onChange }: FieldsProps<"fillField">) {
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

export const fillField: StepKind<"fillField"> = {
  label: "Fill a field",
  begin: (choices) => ({ kind: "fillField", field: choices.dates[0]?.key ?? "", value: null }),
  Fields,
};
