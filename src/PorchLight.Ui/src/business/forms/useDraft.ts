import { useCallback, useEffect, useRef, useState } from "react";
import { useQueryClient } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../api/problem";
import { api } from "../client";

const savePauseMs = 700;

export interface Words {
  title: string;
  intro: string;
  wordings: Record<string, string>;
}

const wordsOf = (form: Schemas["FormView"]): Words => ({
  title: form.title,
  intro: form.intro,
  wordings: Object.fromEntries(
    form.pages.flatMap((page) => page.questions.map((question) => [question.key, question.wording])),
  ),
});

/** The words being edited, saved by themselves a moment after the last keystroke, one save at a time. */
export function useDraft(form: Schemas["FormView"]) {
  const queries = useQueryClient();
  const [words, setWords] = useState(() => wordsOf(form));
  const [isDirty, setDirty] = useState(false);
  const [isSaving, setSaving] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const latest = useRef({ words, revision: form.revision, dirty: false });
  const running = useRef<Promise<void> | null>(null);

  const saveNow = useCallback(async (): Promise<void> => {
    while (running.current) await running.current;
    if (!latest.current.dirty) return;
    const saved = latest.current.words;
    latest.current.dirty = false;
    setSaving(true);
    running.current = orProblem(
      api.PUT("/api/forms/{id}/draft", {
        params: { path: { id: form.id } },
        body: { basedOn: latest.current.revision, ...saved },
      }),
    )
      .then((next) => {
        latest.current.revision = next.revision;
        setDirty(latest.current.dirty);
        setError(null);
        queries.setQueryData(["form", form.id], next);
      })
      .finally(() => {
        running.current = null;
        setSaving(false);
      });
    try {
      await running.current;
    } catch (failure) {
      latest.current.dirty = true;
      setError(failure);
      throw failure;
    }
  }, [form.id, queries]);

  useEffect(() => {
    if (!latest.current.dirty) return;
    const timer = setTimeout(() => void saveNow().catch(() => {}), savePauseMs);
    return () => clearTimeout(timer);
  }, [words, saveNow]);

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

  const change = (next: Words) => {
    latest.current = { ...latest.current, words: next, dirty: true };
    setWords(next);
    setDirty(true);
  };
  return { words, change, saveNow, isDirty, isSaving, error };
}
