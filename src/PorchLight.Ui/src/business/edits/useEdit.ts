import { useState, type FormEvent } from "react";
import { useMutation } from "@tanstack/react-query";
import { findingsOf, Problem, type Clash } from "../../api/problem";
import { settle, type Edit } from "./merge";

/**
 * Values that are kept when the person says so.
 * @param stored What is stored when the fields open.
 * @param save Stores an edit and gives what is stored then.
 */
export function useEdit<T>(stored: T, save: (edit: Edit<T>) => Promise<T>) {
  const [edit, setEdit] = useState<Edit<T>>({ was: stored, now: stored });
  const [clashes, setClashes] = useState<Clash[]>([]);
  const mutation = useMutation({
    mutationFn: save,
    onSuccess: (next) => setEdit({ was: next, now: next }),
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
  const choose = (clash: Clash, keep: "theirs" | "yours") => {
    const next = settle(edit, clash, keep);
    const left = clashes.filter((one) => one !== clash);
    setEdit(next);
    setClashes(left);
    if (left.length === 0) mutation.mutate(next);
  };
  return {
    now: edit.now,
    change,
    submit,
    choose,
    clashes,
    isDirty: JSON.stringify(edit.now) !== JSON.stringify(edit.was),
    isSaving: mutation.isPending,
    wasSaved: mutation.isSuccess,
    error: mutation.error,
    findings: findingsOf(mutation.error),
  };
}
