import type { Clash } from "../../api/problem";

/** An edit that says what it started from. */
export interface Edit<T> {
  was: T;
  now: T;
}

type Tree = Record<string, unknown> | unknown[];

const isTree = (value: unknown): value is Tree => typeof value === "object" && value !== null;

/** The value with another one at a place like "title" or "parts.1.filled". */
function setAt<T>(value: T, place: string, inserted: unknown): T {
  if (place === "") return inserted as T;
  const [first = "", ...rest] = place.split(".");
  const copy = (Array.isArray(value) ? [...(value as unknown[])] : { ...value }) as Record<string, unknown>;
  copy[first] = setAt(copy[first], rest.join("."), inserted);
  return copy as T;
}

/** The edit after a person chose what shall stand at a place that was changed elsewhere too. */
export function settle<T>(edit: Edit<T>, { place, theirs }: Clash, keep: "theirs" | "yours"): Edit<T> {
  return {
    was: setAt(edit.was, place, theirs),
    now: keep === "theirs" ? setAt(edit.now, place, theirs) : edit.now,
  };
}

/**
 * What stands in the fields after a save: what was typed since it was sent stays, everything else is as it is stored
 * now. A blank at the end, which is not stored, is not taken away from somebody who is still writing.
 */
export function rebase<T>(sent: T, local: T, stored: T): T {
  if (isTree(sent) && isTree(local) && isTree(stored)) {
    const at = (key: string) =>
      rebase((sent as never)[key] as unknown, (local as never)[key] as unknown, (stored as never)[key] as unknown);
    return (
      Array.isArray(stored)
        ? stored.map((_, index) => at(String(index)))
        : Object.fromEntries(Object.keys(stored).map((key) => [key, at(key)]))
    ) as T;
  }
  const untouched = local === sent;
  return untouched && !(typeof sent === "string" && sent.trim() === stored) ? stored : local;
}
