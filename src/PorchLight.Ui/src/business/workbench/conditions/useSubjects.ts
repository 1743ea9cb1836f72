import type { PossibleValue, SubjectOnOffer } from "../../conditions/subjects";
import { KnownWords } from "../../messages/words";
import { fits } from "../../../kit/fits";
import { questionsBefore, rowQuestions, type AnyQuestion, type Question } from "../form";
import { useWorkbench } from "../workbenchContext";

const possibleFits: PossibleValue[] = fits.map(([key, label]) => ({ key, label }));

/** Where a condition stands decides what it can look at. */
export type ConditionPlace =
  | { at: "item"; key: string }
  | { at: "afterPage"; key: string }
  | { at: "sendOff" }
  | { at: "signal" }
  | { at: "form" }
  /** In each row of a list. */
  | { at: "rowsOf"; key: string };

/** What a condition at a place can look at: what was asked before it, what is on file, and at the end the screening. */
export function useSubjects(place: ConditionPlace): SubjectOnOffer[] {
  const { form, facts, parts } = useWorkbench();
  const all = form.items.filter((item): item is Question & { page: string } => item.item === "question");
  const asked = (): AnyQuestion[] => {
    switch (place.at) {
      case "item":
        return questionsBefore(form, place.key);
      case "afterPage": {
        const next = form.pages[form.pages.findIndex((page) => page.key === place.key) + 1];
        return next ? questionsBefore(form, next.key) : all;
      }
      case "rowsOf": {
        const rows = all.find((item) => item.key === place.key);
        return [...questionsBefore(form, place.key), ...(rows ? rowQuestions(rows) : [])];
      }
      default:
        return all;
    }
  };
  return [
    ...asked().flatMap((question): SubjectOnOffer[] => {
      const known = facts.questions[question.key];
      return known
        ? [
            {
              id: `answer:${question.key}`,
              words: KnownWords.plain(known.reads ?? question.wording),
              group: "Answers",
              of: { kind: "answer", question: question.key },
              comparisons: known.comparisons,
              values: known.values,
              currency: known.currency,
            },
          ]
        : [];
    }),
    ...(place.at === "form" || place.at === "rowsOf" ? [] : parts.fields).map((field): SubjectOnOffer => ({
      id: `field:${field.key}`,
      words: field.label,
      group: "What you know of them",
      of: { kind: "field", field: field.key },
      comparisons: field.comparisons,
      values: [],
      currency: parts.currency,
    })),
    ...(place.at === "sendOff"
      ? [
          {
            id: "fit",
            words: "The fit",
            group: "The screening" as const,
            of: null,
            comparisons: [],
            values: possibleFits,
            currency: null,
          },
          {
            id: "points",
            words: "The number of points",
            group: "The screening" as const,
            of: { kind: "points" as const },
            comparisons: ["numberIs" as const, "numberBetween" as const],
            values: [],
            currency: null,
          },
        ]
      : []),
  ];
}
