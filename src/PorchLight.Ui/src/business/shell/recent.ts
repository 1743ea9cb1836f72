import { useEffect } from "react";

const most = 8;

/** The clients opened last in this browser, the last one first. Only their identifiers stay here. */
const placeOf = (person: string) => `opened-clients ${person}`;

export function recentClients(person: string): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(placeOf(person)) ?? "[]");
    return Array.isArray(kept) ? kept.filter((one): one is string => typeof one === "string") : [];
  } catch {
    return [];
  }
}

/** Remembers that a client is open. */
export function useRecent(person: string, client: string | undefined) {
  useEffect(() => {
    if (!client) return;
    const others = recentClients(person).filter((one) => one !== client);
    localStorage.setItem(placeOf(person), JSON.stringify([client, ...others].slice(0, most)));
  }, [person, client]);
}
