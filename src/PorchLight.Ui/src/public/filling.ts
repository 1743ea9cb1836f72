import type { Answers } from "./client";

/** What a lead has typed so far, kept in this browser only, so that a reload or a way back loses nothing. */
export interface Filling {
  version: number;
  page: string;
  answers: Answers;
  sendKey: string;
}

const keyOf = (token: string) => `porch-light:${token}`;

export function load(token: string): Filling | null {
  try {
    const kept = sessionStorage.getItem(keyOf(token));
    return kept ? (JSON.parse(kept) as Filling) : null;
  } catch {
    return null; // Storage may be refused to a frame; the form then works without it.
  }
}

export function keep(token: string, filling: Filling | null): void {
  try {
    if (filling) sessionStorage.setItem(keyOf(token), JSON.stringify(filling));
    else sessionStorage.removeItem(keyOf(token));
  } catch {
    // As above.
  }
}

/** A random UUID; crypto.randomUUID exists only where the page came by https. */
export function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6]! & 0x0f) | 0x40;
  bytes[8] = (bytes[8]! & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, "$1-$2-$3-$4-$5");
}
