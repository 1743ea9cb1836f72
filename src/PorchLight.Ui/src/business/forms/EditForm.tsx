import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { LampMark } from "../../kit/marks";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../client";
import { useTitle } from "../frame/useTitle";
import { Share } from "./Share";
import { useDraft } from "./useDraft";
import { Wordings } from "./Wordings";

/** One form: its words, its light, publishing, link and embed code. */
export function EditForm() {
  const { id = "" } = useParams();
  const form = useQuery({
    queryKey: ["form", id],
    queryFn: () => orProblem(api.GET("/api/forms/{id}", { params: { path: { id } } })),
    refetchOnMount: "always",
  });
  // The words to be edited are those stored now, never those seen the last time.
  const ready = form.isFetchedAfterMount && form.data;
  useTitle(form.data?.title);
  return (
    <main className="h-full overflow-y-auto">
      <div className="mx-auto max-w-6xl p-6 sm:px-10">
        <Failure error={form.error} />
        {!ready && !form.error && <Skeleton rows={8} />}
        {ready && <Editor key={ready.id} form={ready} />}
      </div>
    </main>
  );
}

function Editor({ form }: { form: Schemas["FormView"] }) {
  const queries = useQueryClient();
  const path = { id: form.id };
  const draft = useDraft(form);
  const publish = useMutation({
    mutationFn: async () => {
      await draft.saveNow();
      return orProblem(api.POST("/api/forms/{id}/publish", { params: { path } }));
    },
    onSuccess: (next) => queries.setQueryData(["form", form.id], next),
  });
  const light = useMutation({
    mutationFn: (on: boolean) => orProblem(api.POST("/api/forms/{id}/light", { params: { path }, body: { on } })),
    onSuccess: () => void queries.invalidateQueries(),
  });
  const changed = form.unpublishedChanges || draft.isDirty;
  return (
    <>
      <div className="mb-5 flex flex-wrap items-center gap-x-5 gap-y-2">
        <h1 className="text-2xl">{draft.words.title || "A form without a title"}</h1>
        <span className="inline-flex items-center gap-2">
          <LampMark lit={form.lightOn} /> Light is {form.lightOn ? "on" : "off"}, version {form.version}
        </span>
        <span role="status" className="text-slate">
          {draft.isSaving ? "Saving …" : draft.isDirty ? "" : `Saved ${form.saved}`}
        </span>
        <span className="ml-auto flex flex-wrap gap-2">
          <Button disabled={light.isPending} onClick={() => light.mutate(!form.lightOn)}>
            {form.lightOn ? "Turn the light off" : "Turn the light on"}
          </Button>
          <a href={form.link} target="_blank" rel="noreferrer" className={buttonLook("plain")}>
            See it as a lead
          </a>
          <Button weight="main" disabled={!changed || publish.isPending} onClick={() => publish.mutate()}>
            {changed ? `Publish version ${form.version + 1}` : `Version ${form.version} is published`}
          </Button>
        </span>
      </div>
      <Failure error={draft.error ?? publish.error ?? light.error} />
      <div className="grid items-start gap-6 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <Wordings form={form} words={draft.words} onChange={draft.change} />
        <Share form={form} />
      </div>
    </>
  );
}
