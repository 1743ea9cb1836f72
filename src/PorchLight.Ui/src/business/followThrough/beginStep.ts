import { newKey } from "../../kit/newKey";
import { stepKinds } from "./steps/stepKinds";
import type { Choices, Step, StepAction } from "./useFollowThrough";

/** A step of a kind with nothing said yet. */
export function beginStep(kind: StepAction["kind"], choices: Choices, isFirst: boolean): Step {
  const { begin, flow, needsNod } = stepKinds[kind];
  return {
    key: newKey().slice(0, 8),
    name: "",
    action: begin(choices),
    schedule: {
      anchor: { kind: isFirst ? "runStart" : "previousSettled" },
      amount: isFirst || flow === "goesOn" ? 0 : 3,
      unit: "days",
      atOnce: false,
    },
    needsNod: needsNod ?? false,
  };
}
