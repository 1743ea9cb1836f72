import { useCallback, useRef, useState } from "react";
import { rebase } from "./merge";

const oneEditMs = 1500;
const mostSteps = 200;

interface Step<T> {
  before: T;
  after: T;
  /** What was changed, so that typing in one place is one step. */
  place: string;
  at: number;
}

/**
 * Undo and redo. A step takes back only what it changed itself: what others changed since stays, and so does what was stored in
 * between.
 * @param read Gives the value as it is at this moment.
 * @param change Puts another one in its place.
 */
export function useHistory<T>(read: () => T, change: (next: T) => void) {
  const done = useRef<Step<T>[]>([]);
  const undone = useRef<Step<T>[]>([]);
  const [steps, setSteps] = useState({ undo: 0, redo: 0 });

  const count = useCallback(() => setSteps({ undo: done.current.length, redo: undone.current.length }), []);
  /** Changes the value as a step to take back; gives what takes back this very step, also after later ones. */
  const step = useCallback(
    (make: (before: T) => T, place: string): (() => void) => {
      const before = read();
      const after = make(before);
      if (after === before) return () => {};
      const last = done.current.at(-1);
      const now = Date.now();
      if (last && last.place === place && now - last.at < oneEditMs && last.after === before)
        Object.assign(last, { after, at: now });
      else done.current = [...done.current.slice(1 - mostSteps), { before, after, place, at: now }];
      undone.current = [];
      count();
      change(after);
      return () => change(rebase(after, before, read()));
    },
    [read, change, count],
  );
  const undo = useCallback(() => {
    const last = done.current.pop();
    if (!last) return;
    undone.current.push(last);
    count();
    change(rebase(last.after, last.before, read()));
  }, [read, change, count]);
  const redo = useCallback(() => {
    const last = undone.current.pop();
    if (!last) return;
    done.current.push(last);
    count();
    change(rebase(last.before, last.after, read()));
  }, [read, change, count]);
  return { step, undo, redo, canUndo: steps.undo > 0, canRedo: steps.redo > 0 };
}
