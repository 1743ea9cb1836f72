import type { Edit } from "./merge";

const named = (place: string) => `porch-light:unsaved:${place}`;

/** What could not be saved, kept in this browser until it is: also when the page is left, or the browser closed. */
export const unsaved = {
  read<T>(place: string): Edit<T> | null {
    try {
      return JSON.parse(localStorage.getItem(named(place)) ?? "null") as Edit<T> | null;
    } catch {
      return null;
    }
  },
  keep<T>(place: string, edit: Edit<T>) {
    try {
      localStorage.setItem(named(place), JSON.stringify(edit));
    } catch {
      // A full or forbidden store keeps nothing; what was typed still stands on the page.
    }
  },
  forget(place: string) {
    localStorage.removeItem(named(place));
  },
};
