import type { ReactNode } from "react";
import type { Schemas } from "../../../api/problem";
import type { Choices } from "../useFollowThrough";

export type StartOn = Schemas["StartOn"];
export type Named<K extends StartOn["kind"]> = Extract<StartOn, { kind: K }>;

export interface FieldsProps<K extends StartOn["kind"]> {
  start: Named<K>;
  choices: Choices;
  onChange: (start: Named<K>) => void;
}

/** A way to start as it is offered and worked on. */
export interface StartKind<K extends StartOn["kind"]> {
  /** What it is called behind "It starts when". */
  label: string;
  /** One with nothing said yet. */
  begin: (choices: Choices) => Named<K>;
  /** What is said of it; nothing where its name says all. */
  Fields?: (props: FieldsProps<K>) => ReactNode;
}
