import { useCallback } from "react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { boxLook, GrowingText, Labelled } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { Clashes } from "../saving/Clashes";
import type { Edit } from "../saving/merge";
import { useAutoSave } from "../saving/useAutoSave";

/** What people see while the light is off; it holds at once, whatever version is published. */
export function AwayNote({ id }: { id: string }) {
  const form = useQuery(ask(["form", id], () => api.GET("/api/forms/{id}", { params: { path: { id } } })));
  return form.data ? <Note form={form.data} /> : <Failure error={form.error} />;
}

function Note({ form }: { form: Schemas["FormView"] }) {
  const { id } = form;
  const queries = useQueryClient();
  const save = useCallback(
    async (body: Edit<Schemas["AwayNote"]>) => {
      const next = await orProblem(api.PUT("/api/forms/{id}/away-note", { params: { path: { id } }, body }));
      queries.setQueryData(
        ["form", id],
        (before: Schemas["FormView"] | undefined) => before && { ...before, awayNote: next.words },
      );
      return next;
    },
    [id, queries],
  );
  const { value, change, clashes, choose, error } = useAutoSave(`closed:${id}`, { words: form.awayNote }, save);
  return (
    <>
      <Labelled
        label="Message while closed"
        help={`What people see ${form.shines ? "while the light is off" : "now, for the light is off"}. It takes effect at once, without publishing.`}
      >
        <GrowingText className={boxLook} value={value.words} onChange={(e) => change({ words: e.target.value })} />
      </Labelled>
      <Clashes clashes={clashes} nameOf={() => "Message while closed"} onChoose={choose} />
      {clashes.length === 0 && <Failure error={error} />}
    </>
  );
}
