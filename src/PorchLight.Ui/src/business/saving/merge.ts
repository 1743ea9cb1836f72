import type { Clash } from "../../api/problem";

/** An edit that says what it started from. */
export interface Edit<T> {
  was: T;
  now: T;
}

/** How the order of a keyed list is named within a place. */
const order = "~order";

type Fields = Record<string, unknown>;
type Keyed = Fields & { key: string };

const isFields = (value: unknown): value is Fields =>
  typeof value === "object" && value !== null && !Array.isArray(value);

const isKeyed = (value: unknown): value is Keyed[] =>
  Array.isArray(value) &&
  value.every((one) => isFields(one) && typeof one.key === "string" && one.key !== "") &&
  new Set(value.map((one) => (one as Keyed).key)).size === value.length;

const find = (list: Keyed[], key: string) => list.find((one) => one.key === key);

const isSame = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);

/** The value with another one at a place like "title", "parts.opening.text" or "parts.~order"; undefined takes it away. */
function setAt<T>(value: T, place: string, inserted: unknown): T {
  if (place === "") return inserted as T;
  const [first = "", ...rest] = place.split(".");
  const inner = (old: unknown) => setAt(old, rest.join("."), inserted);
  if (isKeyed(value)) {
    const list: Keyed[] = value;
    if (first === order) {
      const keys = inserted as string[];
      const rank = (one: Keyed) => (keys.includes(one.key) ? keys.indexOf(one.key) : keys.length);
      return [...list].sort((a, b) => rank(a) - rank(b)) as T;
    }
    const next = inner(find(list, first)) as Keyed | null | undefined;
    const others = list.flatMap((one) => (one.key === first ? (next ? [next] : []) : [one]));
    return (next && !find(list, first) ? [...others, next] : others) as T;
  }
  return { ...value, [first]: inner((value as Fields)[first]) };
}

/** The edit after a person chose what shall stand at a place that was changed elsewhere too. */
export function settle<T>(edit: Edit<T>, { place, theirs }: Clash, keep: "theirs" | "yours"): Edit<T> {
  return {
    was: setAt(edit.was, place, theirs),
    now: keep === "theirs" ? setAt(edit.now, place, theirs) : edit.now,
  };
}

/** The entries in the order of one list; those only the other has behind what they stand behind there. */
function inOrderOf(one: Keyed[], other: Keyed[], kept: Map<string, unknown>): unknown[] {
  const keys = one.map((entry) => entry.key).filter((key) => kept.has(key));
  let behind = -1;
  for (const { key } of other.filter((entry) => kept.has(entry.key))) {
    if (!keys.includes(key)) keys.splice(behind + 1, 0, key);
    behind = keys.indexOf(key);
  }
  return keys.map((key) => kept.get(key));
}

const absent = Symbol("absent");

/**
 * What stands in the fields after a save: what was typed, added, moved or taken away since it was sent stays so,
 * everything else is as it is stored now. A blank at the end, which is not stored, is not taken away from somebody who
 * is still writing. The merging itself is the server's; this only keeps what it cannot have seen yet.
 */
export function rebase<T>(sent: T, local: T, stored: T): T {
  return keepTyped(sent, local, stored) as T;
}

function keepTyped(sent: unknown, local: unknown, stored: unknown): unknown {
  if (isSame(stored, sent)) return local;
  if (isFields(sent) && isFields(local) && isFields(stored)) {
    const at = (fields: Fields, key: string) => (key in fields ? fields[key] : absent);
    const keys = new Set([...Object.keys(sent), ...Object.keys(local), ...Object.keys(stored)]);
    const kept = [...keys].map((key) => [key, keepTyped(at(sent, key), at(local, key), at(stored, key))] as const);
    return Object.fromEntries(kept.filter(([, value]) => value !== absent));
  }
  if (isKeyed(sent) && isKeyed(local) && isKeyed(stored)) {
    const at = (list: Keyed[], key: string) => find(list, key) ?? absent;
    const keys = new Set([...sent, ...local, ...stored].map((one) => one.key));
    const kept = new Map<string, unknown>();
    for (const key of keys) {
      const value = keepTyped(at(sent, key), at(local, key), at(stored, key));
      if (value !== absent) kept.set(key, value);
    }
    const common = (list: Keyed[], other: Keyed[]) => list.filter((one) => find(other, one.key)).map((one) => one.key);
    const moved = !isSame(common(local, sent), common(sent, local));
    return moved ? inOrderOf(local, stored, kept) : inOrderOf(stored, local, kept);
  }
  if (!isSame(local, sent)) return local;
  return typeof sent === "string" && sent.trim() === stored ? local : stored;
}
