import type { components } from "./schema";

export type Schemas = components["schemas"];
export type Finding = Schemas["Finding"];

/** A place that was changed elsewhere meanwhile: what stands there now, and what this window wanted. */
export type Clash = NonNullable<Schemas["Refusal"]["clashes"]>[number];

/** A refusal with a sentence for the person (RFC 9457 problem details). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    sentence: string,
    readonly findings: Finding[] = [],
    readonly clashes: Clash[] = [],
    /** In how many seconds the same would be taken, where waiting helps. */
    readonly retryAfter: number | null = null,
    /** The free times nearest to one that is taken. */
    readonly nearest: Schemas["BookingTime"][] = [],
  ) {
    super(sentence);
  }
}

const unreachable = "We cannot be reached just now. What you typed is still here; please try again in a moment.";

/** The data of an answer, or a Problem thrown with the server's sentence. */
export async function orProblem<T>(answer: Promise<{ data?: T; response: Response; error?: unknown }>): Promise<T> {
  let got;
  try {
    got = await answer;
  } catch {
    throw new Problem(0, unreachable);
  }
  if (got.response.ok) return got.data as T;
  const details = (got.error ?? {}) as Partial<Schemas["Refusal"]>;
  throw new Problem(
    got.response.status,
    details.detail ?? unreachable,
    details.findings,
    details.clashes,
    details.retryAfter,
    details.nearest,
  );
}

/** The sentences of a refusal by the places they belong to. */
export function findingsOf(error: unknown): Map<string, string> {
  return new Map(error instanceof Problem ? error.findings.map(({ place, sentence }) => [place, sentence]) : []);
}

/** What to show a person of anything that was thrown. */
export function sentenceOf(error: unknown): string {
  return error instanceof Problem ? error.message : "Something broke in this page. Reload it; what was saved is safe.";
}
