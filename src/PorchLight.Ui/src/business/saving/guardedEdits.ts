import { useEffect, useId, useSyncExternalStore } from "react";

/** What is not saved on the page one is on: whether it is being saved just now, by the edit it belongs to. */
const unsaved = new Map<string, boolean>();
const listeners = new Set<() => void>();
let state: GuardState = "saved";

/** "saving" while all that is not saved yet is on its way. */
type GuardState = "saved" | "saving" | "unsaved";

function changed() {
  state = unsaved.size === 0 ? "saved" : [...unsaved.values()].every(Boolean) ? "saving" : "unsaved";
  listeners.forEach((listener) => listener());
}

/** Lets nobody leave an edit behind without being asked, as long as it is not saved. */
export function useGuardedEdit(isDirty: boolean, isSaving: boolean) {
  const edit = useId();
  useEffect(() => {
    if (isDirty) unsaved.set(edit, isSaving);
    else unsaved.delete(edit);
    changed();
  }, [edit, isDirty, isSaving]);
  useEffect(
    () => () => {
      unsaved.delete(edit);
      changed();
    },
    [edit],
  );
}

/** How all edits of a page stand together: a router asks one guard only, however many edits there are. */
export const useGuardState = () =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => state,
  );
