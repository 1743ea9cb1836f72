import type { ReactNode } from "react";
import type { Schemas } from "../../api/problem";
import type { Answer, PublicQuestion } from "../views";

export type Control = Schemas["Control"];
export type ControlKind = Control["kind"];
export type ControlOf<K extends ControlKind> = Extract<Control, { kind: K }>;
export type AnswerKind = Answer["kind"];
export type AnswerOf<K extends AnswerKind> = Extract<Answer, { kind: K }>;

/** What a control is given: its limits, the answer so far, and the words that belong to it. */
export interface ControlProps<K extends ControlKind> {
  id: string;
  place: string;
  control: ControlOf<K>;
  placeholder: string | null;
  answer: Answer | undefined;
  onChange: (answer: Answer | undefined) => void;
  described: Described;
}

/** A question of a page, or of a row. */
export interface FieldProps {
  question: PublicQuestion;
  /** Its key; in a row "signs/0/width". */
  place: string;
  /** Whether it stands in a row the server has not heard of yet. */
  isNew?: boolean;
  answer: Answer | undefined;
  onChange: (answer: Answer | undefined) => void;
}

export interface Described {
  "aria-describedby": string | undefined;
  "aria-invalid": true | undefined;
}

export const box =
  "w-full rounded-soft border border-edge bg-card px-3 py-2.5 text-ink aria-invalid:border-2 aria-invalid:border-brick";

/** The way on. Its edge is seen only where colours are forced. */
export const brandButton =
  "min-h-11 rounded-soft border border-transparent bg-[var(--brand)] px-5 py-2.5 font-semibold text-card";

export const quietButton =
  "inline-flex min-h-11 items-center gap-2 rounded-soft border border-edge bg-card px-4 py-2 text-ink aria-disabled:opacity-60";

/** The answer when it is of the kind the control gives. */
export function answerOf<K extends AnswerKind>(answer: Answer | undefined, kind: K): AnswerOf<K> | undefined {
  return answer?.kind === kind ? (answer as AnswerOf<K>) : undefined;
}

/** Controls of several parts stand in a fieldset, with the wording as its legend. */
export function isGroup({ control }: PublicQuestion): boolean {
  switch (control.kind) {
    case "choice":
      return !control.dropDown || control.several;
    case "yesNo":
    case "scale":
    case "personName":
    case "address":
    case "dateRange":
    case "files":
    case "rows":
    case "consent":
    case "signature":
      return true;
    default:
      return false;
  }
}

/** A part of an answer, with a small label of its own. */
export function Part({ label, children }: { label: string; children: ReactNode }) {
  return (
    <label className="block min-w-0">
      <span className="mb-0.5 block text-slate">{label}</span>
      {children}
    </label>
  );
}
