import { useCallback, useEffect, useRef, useState } from "react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { api } from "../../api/client";
import type { Edit } from "../saving/merge";
import { useAutoSave } from "../saving/useAutoSave";
import { useHistory } from "../saving/useHistory";
import { flat, whole, type WorkingForm } from "./form";

/** The working copy as it is stored when a form is opened, and whenever another window stores it. */
export const useStoredCopy = (id: string) =>
  useQuery({
    ...ask(["form-content", id], () => api.GET("/api/forms/{id}/content", { params: { path: { id } } })),
    refetchOnMount: "always",
  });

/**
 * A form while it is built: it saves itself a moment after each change, takes changes back, and goes on from what others store.
 * @param id The form.
 * @param stored The working copy as it is stored now, by this window or another.
 */
export function useWorkingForm(id: string, stored: Schemas["WorkingCopy"]) {
  const queries = useQueryClient();
  const [copy, setCopy] = useState(stored);
  const known = useRef(stored.revision);
  const save = useCallback(
    async ({ was, now }: Edit<WorkingForm>) => {
      const body = { was: whole(was), now: whole(now) };
      const next = await orProblem(api.PUT("/api/forms/{id}/content", { params: { path: { id } }, body }));
      known.current = next.revision;
      setCopy(next);
      queries.setQueryData(
        ["form", id],
        (form: Schemas["FormView"] | undefined) =>
          form && { ...form, title: next.content.title, revision: next.revision, unpublishedChanges: true },
      );
      return flat(next.content);
    },
    [id, queries],
  );
  const saving = useAutoSave<WorkingForm>(`form:${id}`, flat(stored.content), save);
  const { take, read, change } = saving;
  const history = useHistory(read, change);

  const [taken, setTaken] = useState(stored);
  if (taken !== stored) {
    setTaken(stored);
    if (stored.revision >= copy.revision) setCopy(stored);
  }
  // What was asked for before this window saved, and came after, is older than what stands here.
  useEffect(() => {
    if (stored.revision <= known.current) return;
    known.current = stored.revision;
    take(flat(stored.content));
  }, [stored, take]);

  return { ...saving, ...history, form: saving.value, facts: copy.facts, saved: copy.saved, revision: copy.revision };
}

export type Building = ReturnType<typeof useWorkingForm>;
