import type { Schemas } from "../../api/problem";

export type Condition = Schemas["Condition"];
export type Comparison = Schemas["Comparison"];
export type PossibleValue = Schemas["PossibleValue"];

/** Something a condition can look at. */
export interface SubjectOnOffer {
  id: string;
  words: string;
  group: "Answers" | "What you know of them" | "The screening";
  /** What is compared; null for the verdict itself, which only is or is not so. */
  of: Schemas["Subject"] | null;
  comparisons: Comparison[];
  values: PossibleValue[];
  currency: string | null;
}

/** Which of the subjects a comparison looks at. */
export function subjectOf(condition: Condition): string {
  if (condition.kind === "fitIs") return "fit";
  if (!("of" in condition)) return "";
  switch (condition.of.kind) {
    case "answer":
      return `answer:${condition.of.question}`;
    case "field":
      return `field:${condition.of.field}`;
    default:
      return "points";
  }
}
