import type { ReactNode } from "react";
import type { Choices, Step, StepAction } from "../useFollowThrough";

export type Named<K extends StepAction["kind"]> = Extract<StepAction, { kind: K }>;

export interface FieldsProps<K extends StepAction["kind"]> {
  value: Named<K>;
  choices: Choices;
  /** Whether it follows a form that somebody left half-finished. */
  isAboutUnfinishedForm: boolean;
  /** The steps behind it, where it may go on. */
  later: Step[];
  onChange: (action: Named<K>) => void;
}

/** A kind of step as it is offered and worked on. */
export interface StepKind<K extends StepAction["kind"]> {
  /** What it is called where a kind is chosen. */
  label: string;
  /** Where it only decides how the run goes on, and does nothing that anybody could nod to: whether it waits, or goes on at once. */
  flow?: "waits" | "goesOn";
  /** Whether a new one waits for a nod. */
  needsNod?: boolean;
  /** One with nothing said yet. */
  begin: (choices: Choices) => Named<K>;
  /** What is said of it, in full. */
  Fields: (props: FieldsProps<K>) => ReactNode;
}

export const noId = "00000000-0000-0000-0000-000000000000";
