import type { SubjectOnOffer } from "../conditions/subjects";
import type { Choices } from "./useFollowThrough";

/** What a condition of a step can look at: what the form asks that starts it, and what is on file. */
export const subjectsOf = (choices: Choices): SubjectOnOffer[] =>
  choices.subjects.flatMap((one): SubjectOnOffer[] => {
    const rest = {
      words: one.words,
      of: one.of,
      comparisons: one.comparisons,
      values: one.values,
      currency: one.currency,
    };
    switch (one.of.kind) {
      case "answer":
        return [{ id: `answer:${one.of.question}`, group: "Answers", ...rest }];
      case "field":
        return [{ id: `field:${one.of.field}`, group: "What you know of them", ...rest }];
      default:
        return [];
    }
  });
