import type { StepKind } from "./stepKind";

const Fields = () => (
  <p className="text-slate">The follow-through ends here. Later steps are only reached by a branch.</p>
);

export const end: StepKind<"end"> = {
  label: "End here",
  flow: "goesOn",
  begin: () => ({ kind: "end" }),
  Fields,
};
