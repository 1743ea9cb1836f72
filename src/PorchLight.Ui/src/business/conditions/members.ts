import type { Schemas } from "../../api/problem";
import type { Condition } from "./subjects";

/** What each condition is called in the schema of forms. */
const conditions: { [K in Condition["kind"]]: keyof Schemas } = {
  all: "ConditionAllCondition",
  any: "ConditionAnyCondition",
  not: "ConditionNotCondition",
  is: "ConditionIsCondition",
  isNot: "ConditionIsNotCondition",
  isOneOf: "ConditionIsOneOfCondition",
  includes: "ConditionIncludesCondition",
  includesNoneOf: "ConditionIncludesNoneOfCondition",
  doesNotKnow: "ConditionDoesNotKnowCondition",
  numberIs: "ConditionNumberCondition",
  numberBetween: "ConditionNumberBetweenCondition",
  dateBetween: "ConditionDateBetweenCondition",
  before: "ConditionBeforeCondition",
  after: "ConditionAfterCondition",
  withinNextDays: "ConditionWithinNextDaysCondition",
  isAnswered: "ConditionIsAnsweredCondition",
  isBlank: "ConditionIsBlankCondition",
  fitIs: "ConditionFitCondition",
};

const subjects: { [K in Schemas["Subject"]["kind"]]: keyof Schemas } = {
  answer: "SubjectAnswerTo",
  field: "SubjectValueOnFile",
  points: "SubjectPointsSoFar",
};

/** The members of a condition that its pickers edit, as the schema of forms names them. */
export function membersOf(condition: Condition): string {
  const own = Object.keys(condition)
    .filter((member) => member !== "kind")
    .map((member) => `${conditions[condition.kind]}.${member}`);
  const of =
    "of" in condition
      ? Object.keys(condition.of)
          .filter((member) => member !== "kind")
          .map((member) => `${subjects[condition.of.kind]}.${member}`)
      : [];
  return [...own, ...of].join(" ");
}
