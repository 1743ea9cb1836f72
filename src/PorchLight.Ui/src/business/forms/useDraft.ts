import { useCallback } from "react";
import { useQueryClient } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../api/problem";
import { api } from "../client";
import type { Edit } from "../edits/merge";
import { useAutoSave } from "../edits/useAutoSave";

export type Words = Schemas["FormWords"];

const wordsOf = (form: Schemas["FormView"]): Words => ({
  title: form.title,
  intro: form.intro,
  awayNote: form.awayNote,
  wordings: Object.fromEntries(
    form.pages.flatMap((page) => page.questions.map((question) => [question.key, question.wording])),
  ),
});

/** The words of a form while they are edited. */
export function useDraft(form: Schemas["FormView"]) {
  const queries = useQueryClient();
  const save = useCallback(
    async (edit: Edit<Words>) => {
      const next = await orProblem(api.PUT("/api/forms/{id}/draft", { params: { path: { id: form.id } }, body: edit }));
      queries.setQueryData(["form", form.id], next);
      return wordsOf(next);
    },
    [form.id, queries],
  );
  return useAutoSave(wordsOf(form), save);
}
