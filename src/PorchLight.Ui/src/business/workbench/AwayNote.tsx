import { useCallback } from "react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../api/problem";
import { boxLook, GrowingText, Labelled } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../client";
import { Clashes } from "../edits/Clashes";
import type { Edit } from "../edits/merge";
import { useAutoSave } from "../edits/useAutoSave";

/** What people see while the light is off; it holds at once, whatever version is published. */
export function AwayNote({ id }: { id: string }) {
  const form = useQuery({
    queryKey: ["form", id],
    queryFn: () => orProblem(api.GET("/api/forms/{id}", { params: { path: { id } } })),
  });
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
