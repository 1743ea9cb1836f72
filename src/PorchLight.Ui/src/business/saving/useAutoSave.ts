import { useCallback, useEffect, useRef, useState } from "react";
import { Problem, type Clash } from "../../api/problem";
import { rebase, settle, type Edit } from "./merge";
import { unsaved } from "./unsaved";

const savePauseMs = 700;
const [firstRetryMs, longestRetryMs] = [2_000, 30_000];

/** Whether the same may be taken a little later: nobody answered, or the server could not. */
const mayPass = (failure: unknown) =>
  failure instanceof Problem && (failure.status === 0 || failure.status === 429 || failure.status >= 500);

/**
 * Values that save themselves a moment after the last keystroke, one save at a time. What cannot be saved is tried again by itself, and
 * kept in this browser for when its place is opened again.
 * @param place Names what is edited, for as long as it exists.
 * @param stored What is stored at the beginning.
 * @param save Stores an edit and gives what is stored then.
 */
export function useAutoSave<T>(place: string, stored: T, save: (edit: Edit<T>) => Promise<T>) {
  const [begun] = useState(() => unsaved.read<T>(place) ?? { was: stored, now: stored });
  const [value, setValue] = useState(begun.now);
  const [isDirty, setDirty] = useState(begun.now !== begun.was);
  const [isSaving, setSaving] = useState(false);
  const [wasSaved, setWasSaved] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const [retries, setRetries] = useState(0);
  const [clashes, setClashes] = useState<Clash[]>([]);
  const latest = useRef({ ...begun, dirty: begun.now !== begun.was, clashes: 0 });
  const retry = useRef({ pause: firstRetryMs, timer: undefined as ReturnType<typeof setTimeout> | undefined });
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
    clearTimeout(retry.current.timer);
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
          retry.current.pause = firstRetryMs;
          unsaved.forget(place);
        },
        (failure: unknown) => {
          latest.current.dirty = true;
          unsaved.keep(place, { was, now: latest.current.now });
          raise(failure);
          if (mayPass(failure)) {
            retry.current.timer = setTimeout(() => setRetries((times) => times + 1), retry.current.pause);
            retry.current.pause = Math.min(2 * retry.current.pause, longestRetryMs);
          }
          throw failure;
        },
      )
      .finally(() => {
        running.current = null;
        setSaving(false);
      });
    await running.current;
    return latest.current.was;
  }, [place, raise]);

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
  }, [value, retries, saveNow]);

  // Whoever leaves at once after the last keystroke loses nothing either.
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => {
      if (latest.current.dirty || running.current) event.preventDefault();
    };
    const again = () => setRetries((times) => times + 1);
    const { current: waiting } = retry;
    addEventListener("beforeunload", warn);
    addEventListener("online", again);
    return () => {
      removeEventListener("beforeunload", warn);
      removeEventListener("online", again);
      clearTimeout(waiting.timer);
      void saveNow().catch(() => {});
    };
  }, [saveNow]);

  const change = useCallback(
    (next: T) => {
      latest.current.now = next;
      latest.current.dirty = true;
      if (error !== null) unsaved.keep(place, { was: latest.current.was, now: next });
      setValue(next);
      setDirty(true);
    },
    [error, place],
  );
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
