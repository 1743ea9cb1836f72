import { useState } from "react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { NavLink, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { LightMark } from "../../kit/marks";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../client";
import { useTitle } from "../shell/useTitle";
import { Clashes } from "../edits/Clashes";
import { NothingHere } from "../shell/NothingHere";
import { FormSettings } from "./FormSettings";
import { PersonalLinks } from "./PersonalLinks";
import { Share } from "./Share";
import { useDraft } from "./useDraft";
import { Versions } from "./Versions";
import { WaysIn } from "./WaysIn";
import { Wordings } from "./Wordings";

const sections = [
  ["words", "Words"],
  ["ways-in", "Share and embed"],
  ["settings", "Settings"],
  ["versions", "Versions"],
] as const;

/** One form: its words, its light and publishing; how people get to it; what holds beside the words. */
export function EditForm() {
  const { id = "", section = "words" } = useParams();
  const form = useQuery({
    queryKey: ["form", id],
    queryFn: () => orProblem(api.GET("/api/forms/{id}", { params: { path: { id } } })),
    refetchOnMount: "always",
  });
  // Whoever brings a version back opens the editor anew, with what is stored then.
  const [broughtBack, setBroughtBack] = useState<{ version: number; times: number }>({ version: 0, times: 0 });
  // The words to be edited are those stored now, never those seen the last time.
  const ready = form.isFetchedAfterMount && form.data;
  useTitle(form.data?.title);
  if (!sections.some(([key]) => key === section)) return <NothingHere />;
  return (
    <main className="h-full overflow-y-auto">
      <div className="mx-auto max-w-6xl p-6 sm:px-10">
        <Failure error={form.error} />
        {!ready && !form.error && <Skeleton rows={8} />}
        {ready && (
          <Editor
            key={`${ready.id} ${broughtBack.times}`}
            form={ready}
            section={section}
            broughtBack={broughtBack.version}
            onBroughtBack={(version) => setBroughtBack({ version, times: broughtBack.times + 1 })}
          />
        )}
      </div>
    </main>
  );
}

interface EditorProps {
  form: Schemas["FormView"];
  section: string;
  /** The version that became the working copy last; 0 for none. */
  broughtBack: number;
  onBroughtBack: (version: number) => void;
}

function Editor({ form, section, broughtBack, onBroughtBack }: EditorProps) {
  const queries = useQueryClient();
  const path = { id: form.id };
  const draft = useDraft(form);
  const light = useMutation({
    mutationFn: (on: boolean) => orProblem(api.POST("/api/forms/{id}/light", { params: { path }, body: { on } })),
    onSuccess: () => void queries.invalidateQueries(),
  });
  const publish = useMutation({
    mutationFn: async () => {
      await draft.saveNow();
      return orProblem(api.POST("/api/forms/{id}/publish", { params: { path } }));
    },
    onSuccess: (next) => {
      queries.setQueryData(["form", form.id], next);
      light.reset();
    },
  });
  const changed = form.unpublishedChanges || draft.isDirty;
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <h1 className="text-2xl">{draft.value.title || "A form without a title"}</h1>
        <span className="inline-flex items-center gap-2">
          <LightMark lit={form.shines} /> Light is {form.shines ? "on" : "off"},{" "}
          {form.version === 0 ? "not published yet" : `version ${form.version}`}
        </span>
        <span role="status" className="text-slate">
          {draft.isSaving ? "Saving …" : draft.isDirty ? "" : `Saved ${form.saved}`}
        </span>
        <span className="ml-auto flex flex-wrap gap-2">
          <Button disabled={light.isPending} onClick={() => light.mutate(!form.lightOn)}>
            {form.lightOn ? "Turn the light off" : "Turn the light on"}
          </Button>
          <a href={`/api/forms/${form.id}/look`} target="_blank" className={buttonLook("plain")}>
            See it as a lead
          </a>
          <Button weight="main" disabled={!changed || publish.isPending} onClick={() => publish.mutate()}>
            {changed ? `Publish version ${form.version + 1}` : `Version ${form.version} is published`}
          </Button>
        </span>
      </div>
      {form.lightOn !== form.shines && <p className="mb-3">{form.light}</p>}
      <nav aria-label="This form" className="mb-5 flex flex-wrap gap-1 border-b border-line">
        {sections.map(([key, words]) => (
          <NavLink
            key={key}
            to={key === "words" ? `/forms/${form.id}` : `/forms/${form.id}/${key}`}
            aria-current={key === section ? "page" : undefined}
            className={`-mb-px border-b-2 px-3 py-1.5 ${key === section ? "border-dusk font-semibold" : "border-transparent hover:border-edge"}`}
          >
            {words}
          </NavLink>
        ))}
      </nav>
      <Failure
        error={(draft.clashes.length === 0 && draft.error) || publish.error || light.error}
        takesFocus={publish.isError || light.isError}
      />
      <Clashes clashes={draft.clashes} nameOf={(place) => nameOf(form, place)} onChoose={draft.choose} />
      {section === "settings" ? (
        <FormSettings id={form.id} />
      ) : section === "versions" ? (
        <Versions form={form} saveNow={draft.saveNow} broughtBack={broughtBack} onBroughtBack={onBroughtBack} />
      ) : section === "ways-in" ? (
        <div className="grid items-start gap-6 lg:grid-cols-2">
          <WaysIn form={form} />
          <PersonalLinks id={form.id} />
        </div>
      ) : (
        <div className="grid items-start gap-6 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
          <Wordings form={form} words={draft.value} onChange={draft.change} />
          <Share
            form={form}
            awayNote={draft.value.awayNote}
            onAwayNote={(awayNote) => draft.change({ ...draft.value, awayNote })}
          />
        </div>
      )}
    </>
  );
}

const names: Record<string, string> = { title: "Title", intro: "Intro", awayNote: "Message while closed" };

function nameOf(form: Schemas["FormView"], place: string): string {
  const key = place.replace("wordings.", "");
  const number = form.pages.flatMap((page) => page.questions).findIndex((question) => question.key === key) + 1;
  return names[place] ?? `Wording of question ${number}`;
}
