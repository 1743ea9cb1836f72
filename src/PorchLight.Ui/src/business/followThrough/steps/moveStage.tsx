import { Labelled, SelectBox } from "../../../kit/fields";
import { NumberBox } from "../../../kit/NumberBox";
import { Offered } from "../Offered";
import type { FieldsProps, StepKind } from "./stepKind";

const Fields = ({ value, choices, onChange }: FieldsProps<"moveStage">) => (
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
);

export const moveStage: StepKind<"moveStage"> = {
  label: "Move the stage",
  begin: (choices) => ({ kind: "moveStage", stage: choices.stages[0]?.key ?? "", parkedDays: null }),
  Fields,
};
