import { useState, type FormEvent } from "react";
import { useMutation } from "@tanstack/react-query";
import { findingsOf, Problem, type Clash } from "../../api/problem";
import { useGuardedEdit } from "./guardedEdits";
import { rebase, settle, type Edit } from "./merge";

/**
 * Values that are kept when the person says so; nobody leaves them behind without being asked.
 * @param stored What is stored when the fields open.
 * @param save Stores an edit and gives what is stored then.
 */
export function useEdit<T>(stored: T, save: (edit: Edit<T>) => Promise<T>) {
  const [edit, setEdit] = useState<Edit<T>>({ was: stored, now: stored });
  const [clashes, setClashes] = useState<Clash[]>([]);
  const mutation = useMutation({
    mutationFn: save,
    // What was typed while it was being saved stays.
    onSuccess: (next, sent) => setEdit((before) => ({ was: next, now: rebase(sent.now, before.now, next) })),
    onError: (error) => setClashes(error instanceof Problem ? error.clashes : []),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!mutation.isPending) mutation.mutate(edit);
  };
  const change = (part: Partial<T>) => {
    setEdit((before) => ({ ...before, now: { ...before.now, ...part } }));
    if (mutation.isSuccess) mutation.reset();
  };
  /** Saves at once, without a button: what is on screen, or another value in its place. */
  const saveNow = (now = edit.now) => {
    if (!mutation.isPending && JSON.stringify(now) !== JSON.stringify(edit.was))
      mutation.mutate({ was: edit.was, now });
  };
  const choose = (clash: Clash, keep: "theirs" | "yours") => {
    const next = settle(edit, clash, keep);
    const left = clashes.filter((one) => one !== clash);
    setEdit(next);
    setClashes(left);
    if (left.length === 0) mutation.mutate(next);
  };
  const isDirty = JSON.stringify(edit.now) !== JSON.stringify(edit.was);
  useGuardedEdit(isDirty, mutation.isPending);
  return {
    now: edit.now,
    change,
    submit,
    saveNow,
    choose,
    clashes,
    isDirty,
    isSaving: mutation.isPending,
    wasSaved: mutation.isSuccess,
    error: mutation.error,
    findings: findingsOf(mutation.error),
  };
}
