import { useCallback, useEffect, useRef } from "react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { api } from "../../api/client";
import type { Edit } from "../saving/merge";
import { useAutoSave } from "../saving/useAutoSave";
import { useHistory } from "../saving/useHistory";

export type Content = Schemas["FollowThroughContent"];
export type Step = Schemas["Step"];
export type StepAction = Schemas["StepAction"];
export type View = Schemas["FollowThroughView"];
export type Choices = Schemas["FollowThroughChoices"];

/** The follow-through as it is stored when it is opened, and whenever another window stores it. */
export const useStoredFollowThrough = (id: string) =>
  useQuery({
    ...ask(["follow-through", id], () => api.GET("/api/follow-throughs/{id}", { params: { path: { id } } })),
    refetchOnMount: "always",
  });

/** What can be picked; what a condition can look at hangs on the form that starts it. */
export const useChoices = (id: string, form: string | null | undefined) =>
  useQuery({
    ...ask(["follow-through-choices", id, form ?? null], () =>
      api.GET("/api/follow-throughs/{id}/choices", {
        params: { path: { id }, query: form ? { form } : {} },
      }),
    ),
    placeholderData: (before) => before,
  }).data;

/**
 * A follow-through while it is worked on: it saves itself, takes changes back, and goes on from what others store.
 * @param stored The follow-through as it is stored now.
 */
export function useFollowThrough(stored: View) {
  const { id } = stored;
  const queries = useQueryClient();
  const path = { params: { path: { id } } };
  const keep = useCallback(
    (view: View) => {
      queries.setQueryData(["follow-through", id], view);
      return view.content;
    },
    [queries, id],
  );
  const save = useCallback(
    async ({ was, now }: Edit<Content>) =>
      keep(await orProblem(api.PUT("/api/follow-throughs/{id}", { params: { path: { id } }, body: { was, now } }))),
    [id, keep],
  );
  const saving = useAutoSave<Content>(`follow-through:${id}`, stored.content, save);
  const { take, read, change, saveNow } = saving;
  const history = useHistory(read, change);
  const known = useRef(stored.content);
  useEffect(() => {
    if (known.current === stored.content) return;
    known.current = stored.content;
    take(stored.content);
  }, [stored.content, take]);

  const refresh = (view: View) => {
    keep(view);
  };
  const putIntoForce = useMutation({
    mutationFn: async () => {
      const seen = await saveNow();
      return orProblem(api.POST("/api/follow-throughs/{id}/in-force", { ...path, body: { seen } }));
    },
    onSuccess: refresh,
  });
  const drop = useMutation({
    mutationFn: async () => {
      await saveNow();
      return orProblem(api.DELETE("/api/follow-throughs/{id}/draft", path));
    },
    onSuccess: refresh,
  });
  return { ...saving, ...history, id, content: saving.value, putIntoForce, drop, taken: refresh };
}

export type Edited = ReturnType<typeof useFollowThrough>;

/** One step in place of the one with its key, also where it stands at an end. */
export const withStep = (content: Content, step: Step): Content => ({
  ...content,
  steps: content.steps.map((one) => (one.key === step.key ? step : one)),
  stops: content.stops.map((stop) => (stop.last?.key === step.key ? { ...stop, last: step } : stop)),
});
