import type { Comparison, Condition, SubjectOnOffer } from "./subjects";

/** A way to compare as it is picked: a comparison, with its relation where it is about size. */
export type Operator = Exclude<Comparison, "numberIs"> | `numberIs:${Relation}` | "fitIs";
type Relation = "under" | "atMost" | "atLeast" | "over";

const relations: Relation[] = ["under", "atMost", "atLeast", "over"];

export const operatorWords: Record<Operator, string> = {
  is: "is",
  isNot: "is not",
  isOneOf: "is one of",
  includes: "includes",
  includesNoneOf: "includes none of",
  doesNotKnow: "is not known to them yet",
  "numberIs:under": "is under",
  "numberIs:atMost": "is at most",
  "numberIs:atLeast": "is at least",
  "numberIs:over": "is over",
  numberBetween: "is between",
  before: "is before",
  after: "is after",
  dateBetween: "is between",
  withinNextDays: "is within the next",
  isAnswered: "is answered",
  isBlank: "is left blank",
  fitIs: "is",
};

/** How a subject can be compared. */
export const operatorsOf = (subject: SubjectOnOffer): Operator[] =>
  subject.of === null
    ? ["fitIs"]
    : subject.comparisons.flatMap((one): Operator[] =>
        one === "numberIs" ? relations.map((relation): Operator => `numberIs:${relation}`) : [one],
      );

export const operatorOf = (condition: Condition): Operator | null =>
  condition.kind === "all" || condition.kind === "any" || condition.kind === "not"
    ? null
    : condition.kind === "numberIs"
      ? `numberIs:${condition.relation}`
      : condition.kind;

const today = () => new Date().toISOString().slice(0, 10);

/** A comparison of a subject; what was compared with before stays where it still means something. */
export function compare(subject: SubjectOnOffer, operator: Operator, before?: Condition): Condition {
  if (subject.of === null || operator === "fitIs") return { kind: "fitIs", fit: "comeIn" };
  const { of, values } = subject;
  const fits = (value: string) => values.length === 0 || values.some((one) => one.key === value);
  const kept = (before && valuesOf(before).filter(fits)) ?? [];
  const value = kept[0] ?? values[0]?.key ?? "";
  const number = before && numberOf(before);
  const day = (before && dayOf(before)) ?? today();
  const currency = subject.currency;
  switch (operator) {
    case "is":
    case "isNot":
    case "includes":
      return { kind: operator, of, value };
    case "isOneOf":
    case "includesNoneOf":
      return { kind: operator, of, values: kept.length > 0 ? kept : [value] };
    case "numberBetween":
      return { kind: operator, of, low: number ?? 0, high: number ?? 0, currency };
    case "before":
    case "after":
      return { kind: operator, of, date: day };
    case "dateBetween":
      return { kind: operator, of, from: day, to: day };
    case "withinNextDays":
      return { kind: operator, of, days: 30 };
    case "doesNotKnow":
    case "isAnswered":
    case "isBlank":
      return { kind: operator, of };
    default:
      return {
        kind: "numberIs",
        of,
        relation: operator.slice("numberIs:".length) as Relation,
        value: number ?? 0,
        currency,
      };
  }
}

const valuesOf = (condition: Condition): string[] =>
  "values" in condition
    ? condition.values
    : "value" in condition && typeof condition.value === "string"
      ? [condition.value]
      : [];

const numberOf = (condition: Condition): number | undefined =>
  condition.kind === "numberIs" ? condition.value : condition.kind === "numberBetween" ? condition.low : undefined;

const dayOf = (condition: Condition): string | undefined =>
  condition.kind === "before" || condition.kind === "after"
    ? condition.date
    : condition.kind === "dateBetween"
      ? condition.from
      : undefined;
