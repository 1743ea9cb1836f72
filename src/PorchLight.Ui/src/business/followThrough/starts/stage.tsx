import { StagesPicker } from "../OccasionPicker";
import type { FieldsProps, StartKind } from "./startKind";

const Fields = ({ start, choices, onChange }: FieldsProps<"stage">) => (
  <StagesPicker
    label="Which stage"
    none="Choose at least one."
    stages={choices.stages}
    chosen={start.stages}
    onChange={(stages) => onChange({ ...start, stages })}
  />
);

export const stage: StartKind<"stage"> = {
  label: "a project reaches a stage",
  begin: () => ({ kind: "stage", stages: [] }),
  Fields,
};
