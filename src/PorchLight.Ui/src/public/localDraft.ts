import { writeDownTicket } from "./embedding";
import type { Answers, UnfinishedFormView } from "./views";

/** What a lead has typed so far, kept in this browser only, so that a reload or a way back loses nothing. */
export interface LocalDraft {
  version: number;
  page: string;
  answers: Answers;
  sendKey: string;
  /** Where it is kept to be finished later, in any browser; undefined while it is not. */
  kept?: { token: string; link: string; until: string; revision: number };
}

// What somebody of the business writes down for a lead is not what they try themselves in the same browser.
const keyOf = (token: string) => `porch-light:${token}${writeDownTicket ? ":written-down" : ""}`;
const passKeyOf = (token: string) => `porch-light-pass:${token}`;

export function load(token: string): LocalDraft | null {
  const kept = read(keyOf(token));
  return kept ? (JSON.parse(kept) as LocalDraft) : null;
}

export function keep(token: string, filling: LocalDraft | null): void {
  write(keyOf(token), filling && JSON.stringify(filling));
}

/** A filling-in that was left to be finished later, as it goes on here. */
export function resume(kept: UnfinishedFormView, link: string): LocalDraft {
  const { version, page, sendKey, token, until, revision } = kept;
  const answers = Object.fromEntries(Object.entries(kept.answers).filter(([, answer]) => answer)) as Answers;
  return { version, page, sendKey, answers, kept: { token, link, until, revision } };
}

/** What this browser shows once a code was typed in it. */
export const passOf = (token: string) => read(passKeyOf(token));
export const keepPass = (token: string, pass: string) => write(passKeyOf(token), pass);

// Storage may be refused to a frame; the form then works without it.
function read(key: string): string | null {
  try {
    return sessionStorage.getItem(key);
  } catch {
    return null;
  }
}

function write(key: string, value: string | null): void {
  try {
    if (value === null) sessionStorage.removeItem(key);
    else sessionStorage.setItem(key, value);
  } catch {
    // As above.
  }
}
