import { useCallback, useEffect, useRef, useState } from "react";
import { Problem, type Clash } from "../../api/problem";
import { rebase, settle, type Edit } from "./merge";

const savePauseMs = 700;

/**
 * Values that save themselves a moment after the last keystroke, one save at a time.
 * @param stored What is stored at the beginning.
 * @param save Stores an edit and gives what is stored then.
 */
export function useAutoSave<T>(stored: T, save: (edit: Edit<T>) => Promise<T>) {
  const [value, setValue] = useState(stored);
  const [isDirty, setDirty] = useState(false);
  const [isSaving, setSaving] = useState(false);
  const [wasSaved, setWasSaved] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const [clashes, setClashes] = useState<Clash[]>([]);
  const latest = useRef({ was: stored, now: stored, dirty: false, clashes: 0 });
  const running = useRef<Promise<void> | null>(null);
  const doSave = useRef(save);
  useEffect(() => {
    doSave.current = save;
  }, [save]);

  /** Shows what was refused, and what has to be chosen first. */
  const raise = useCallback((failure: unknown) => {
    const found = failure instanceof Problem ? failure.clashes : [];
    latest.current.clashes = found.length;
    setClashes(found);
    setError(failure);
  }, []);

  /** Stores what is not stored yet, and gives what is stored then. */
  const saveNow = useCallback(async (): Promise<T> => {
    while (running.current) await running.current.catch(() => {});
    if (!latest.current.dirty) return latest.current.was;
    const { was, now } = latest.current;
    latest.current.dirty = false;
    setSaving(true);
    running.current = doSave
      .current({ was, now })
      .then(
        (next) => {
          latest.current.was = next;
          latest.current.now = rebase(now, latest.current.now, next);
          setValue(latest.current.now);
          setDirty(latest.current.dirty);
          setWasSaved(true);
          setError(null);
        },
        (failure: unknown) => {
          latest.current.dirty = true;
          raise(failure);
          throw failure;
        },
      )
      .finally(() => {
        running.current = null;
        setSaving(false);
      });
    await running.current;
    return latest.current.was;
  }, [raise]);

  /** What somebody else stored; while something here is not stored yet, saving it brings both together. */
  const take = useCallback((next: T) => {
    if (latest.current.dirty || running.current) return;
    latest.current.now = rebase(latest.current.was, latest.current.now, next);
    latest.current.was = next;
    setValue(latest.current.now);
  }, []);

  useEffect(() => {
    if (!latest.current.dirty || latest.current.clashes > 0) return;
    const timer = setTimeout(() => void saveNow().catch(() => {}), savePauseMs);
    return () => clearTimeout(timer);
  }, [value, saveNow]);

  // Whoever leaves at once after the last keystroke loses nothing either.
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => {
      if (latest.current.dirty || running.current) event.preventDefault();
    };
    addEventListener("beforeunload", warn);
    return () => {
      removeEventListener("beforeunload", warn);
      void saveNow().catch(() => {});
    };
  }, [saveNow]);

  const change = useCallback((next: T) => {
    latest.current.now = next;
    latest.current.dirty = true;
    setValue(next);
    setDirty(true);
  }, []);
  /** The value at this moment, also before it is on screen. */
  const read = useCallback(() => latest.current.now, []);
  const choose = (clash: Clash, keep: "theirs" | "yours") => {
    Object.assign(latest.current, settle(latest.current, clash, keep));
    const left = clashes.filter((one) => one !== clash);
    latest.current.clashes = left.length;
    setValue(latest.current.now);
    setClashes(left);
    if (left.length === 0) {
      latest.current.dirty = true;
      setError(null);
      void saveNow().catch(() => {});
    }
  };
  return { value, change, read, saveNow, take, raise, isDirty, isSaving, wasSaved, error, clashes, choose };
}
