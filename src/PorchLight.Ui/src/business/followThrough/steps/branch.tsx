import type { Schemas } from "../../../api/problem";
import { ConditionSentence } from "../../conditions/ConditionSentence";
import { Target } from "../Offered";
import { subjectsOf } from "../subjectsOf";
import type { FieldsProps, StepKind } from "./stepKind";

const Fields = ({ value, choices, later, onChange }: FieldsProps<"branch">) => (
  <>
    <ConditionSentence
      value={isEmpty(value.if) ? null : value.if}
      onChange={(next) => onChange({ ...value, if: next ?? { kind: "all", parts: [] } })}
      subjects={subjectsOf(choices)}
      without="Choose what decides."
      begin="If …"
      label="If"
    />
    <Target
      label="then continue at"
      later={later}
      value={value.then}
      onChange={(then) => onChange({ ...value, then })}
    />
    <Target
      label="if not, or if it is not known, go to"
      later={later}
      value={value.otherwise}
      onChange={(otherwise) => onChange({ ...value, otherwise })}
    />
  </>
);

const isEmpty = (condition: Schemas["Condition"]) => condition.kind === "all" && condition.parts.length === 0;

export const branch: StepKind<"branch"> = {
  label: "Go one way or another",
  flow: "goesOn",
  begin: () => ({ kind: "branch", if: { kind: "all", parts: [] }, then: null, otherwise: null }),
  Fields,
};
