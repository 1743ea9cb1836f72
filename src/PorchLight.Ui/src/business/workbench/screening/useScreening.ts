import { useCallback, useDeferredValue, useEffect, useRef } from "react";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask } from "../../../api/ask";
import { orProblem, type Schemas } from "../../../api/problem";
import { api } from "../../../api/client";
import type { Edit } from "../../saving/merge";
import { useAutoSave } from "../../saving/useAutoSave";
import { useHistory } from "../../saving/useHistory";

export type Rules = Schemas["ScreeningRules"];
export type Signal = Schemas["Signal"];

/** The screening as it is stored when the tab is opened, and whenever another window stores it. */
export const useStoredScreening = (id: string) =>
  useQuery({
    ...ask(["screening", id], () => api.GET("/api/forms/{id}/screening", { params: { path: { id } } })),
    refetchOnMount: "always",
  });

/**
 * A screening while it is worked on: it saves itself, takes changes back, and goes on from what others store.
 * @param id The form.
 * @param stored The screening as it is stored now.
 */
export function useScreening(id: string, stored: Schemas["ScreeningView"]) {
  const queries = useQueryClient();
  const path = { params: { path: { id } } };
  const keep = useCallback(
    (view: Schemas["ScreeningView"]) => {
      queries.setQueryData(["screening", id], view);
      return view.rules;
    },
    [queries, id],
  );
  const save = useCallback(
    async ({ was, now }: Edit<Rules>) =>
      keep(await orProblem(api.PUT("/api/forms/{id}/screening", { params: { path: { id } }, body: { was, now } }))),
    [id, keep],
  );
  const saving = useAutoSave<Rules>(`screening:${id}`, stored.rules, save);
  const { take, read, change, saveNow } = saving;
  const history = useHistory(read, change);
  const known = useRef(stored.rules);
  useEffect(() => {
    if (known.current === stored.rules) return;
    known.current = stored.rules;
    take(stored.rules);
  }, [stored.rules, take]);

  const putIntoForce = useMutation({
    mutationFn: async () => {
      const seen = await saveNow();
      return orProblem(api.POST("/api/forms/{id}/screening/in-force", { ...path, body: { seen } }));
    },
    onSuccess: (view) => {
      keep(view);
    },
  });
  const drop = useMutation({
    mutationFn: async () => {
      await saveNow();
      return orProblem(api.DELETE("/api/forms/{id}/screening", path));
    },
    onSuccess: (view) => void keep(view),
  });
  return { ...saving, ...history, rules: saving.value, putIntoForce, drop };
}

export type EditedScreening = ReturnType<typeof useScreening>;

/** Past inquiries sorted by the rules as they stand in this window, also before they are stored. */
export function useSortedAgain(id: string, rules: Rules) {
  const tried = useDeferredValue(rules);
  return useQuery({
    ...ask(["sorted-again", id, tried], (signal) =>
      api.POST("/api/forms/{id}/screening/sort-again", { params: { path: { id } }, body: { rules: tried }, signal }),
    ),
    placeholderData: keepPreviousData,
  });
}
