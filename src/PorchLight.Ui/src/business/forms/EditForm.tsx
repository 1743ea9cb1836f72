import { useState, type ReactNode } from "react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { NavLink, useParams } from "react-router";
import { Redo2, Undo2 } from "lucide-react";
import { orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { LightMark } from "../../kit/marks";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useTitle } from "../shell/useTitle";
import { NothingHere } from "../shell/NothingHere";
import { FormClashes } from "../workbench/FormClashes";
import { useStoredCopy, useWorkingForm } from "../workbench/useWorkingForm";
import { ScreeningTab } from "../workbench/screening/ScreeningTab";
import { Workbench } from "../workbench/Workbench";
import { FormSettings } from "./FormSettings";
import { PersonalLinks } from "./PersonalLinks";
import { Share } from "./Share";
import { Versions } from "./Versions";
import { WaysIn } from "./WaysIn";

const sections = [
  ["build", "Build"],
  ["screening", "Screening"],
  ["ways-in", "Share and embed"],
  ["settings", "Settings"],
  ["versions", "Versions"],
] as const;

/** One form: where it is built, its light and publishing; how people get to it; what holds beside what it asks. */
export function EditForm() {
  const { id = "", section = "build" } = useParams();
  const form = useQuery({
    ...ask(["form", id], () => api.GET("/api/forms/{id}", { params: { path: { id } } })),
    refetchOnMount: "always",
  });
  const copy = useStoredCopy(id);
  // Whoever brings a version back opens the editor anew, with what is stored then.
  const [broughtBack, setBroughtBack] = useState<{ version: number; times: number }>({ version: 0, times: 0 });
  // What is edited is what is stored now, never what was seen the last time.
  const ready = form.isFetchedAfterMount && copy.isFetchedAfterMount && form.data && copy.data;
  const error = form.error ?? copy.error;
  useTitle(form.data?.title);
  if (!sections.some(([key]) => key === section)) return <NothingHere />;
  if (!ready || !form.data)
    return (
      <main className="h-full overflow-y-auto p-6 sm:px-10">
        <Failure error={error} />
        {!error && <Skeleton rows={8} />}
      </main>
    );
  return (
    <Editor
      key={`${id} ${broughtBack.times}`}
      form={form.data}
      copy={ready}
      section={section}
      broughtBack={broughtBack.version}
      onBroughtBack={(version) => setBroughtBack({ version, times: broughtBack.times + 1 })}
    />
  );
}

interface EditorProps {
  form: Schemas["FormView"];
  copy: Schemas["WorkingCopy"];
  section: string;
  /** The version that became the working copy last; 0 for none. */
  broughtBack: number;
  onBroughtBack: (version: number) => void;
}

function Editor({ form, copy, section, broughtBack, onBroughtBack }: EditorProps) {
  const queries = useQueryClient();
  const path = { id: form.id };
  const building = useWorkingForm(form.id, copy);
  const { isSaving, isDirty, saved, clashes } = building;
  const light = useMutation({
    mutationFn: (on: boolean) => orProblem(api.POST("/api/forms/{id}/light", { params: { path }, body: { on } })),
  });
  const publish = useMutation({
    mutationFn: async () => {
      await building.saveNow();
      return orProblem(api.POST("/api/forms/{id}/publish", { params: { path } }));
    },
    onSuccess: (next) => {
      queries.setQueryData(["form", form.id], next);
      light.reset();
    },
  });
  const changed = form.unpublishedChanges || isDirty;
  const isBuilding = section === "build";
  return (
    <main
      className={`flex h-full flex-col px-4 pt-5 sm:px-10 sm:pt-6 ${isBuilding ? "min-h-0" : "overflow-y-auto pb-6"}`}
    >
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-title">{building.form.title || "A form without a title"}</h1>
        <span className="inline-flex items-center gap-2">
          <LightMark lit={form.shines} /> Light is {form.shines ? "on" : "off"},{" "}
          {form.version === 0 ? "not published yet" : `version ${form.version}`}
        </span>
        <span role="status" className="text-slate">
          {isSaving ? "Saving …" : isDirty ? "" : `Saved ${saved}`}
        </span>
        <span className="ml-auto flex flex-wrap items-center gap-2">
          {isBuilding && (
            <>
              <Step label="Undo" disabled={!building.canUndo} onClick={building.undo}>
                <Undo2 size={18} aria-hidden />
              </Step>
              <Step label="Redo" disabled={!building.canRedo} onClick={building.redo}>
                <Redo2 size={18} aria-hidden />
              </Step>
            </>
          )}
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
      {form.warnings.map((words) => (
        <p key={words} className="mb-2 rounded-soft bg-glow px-3 py-2">
          {words}
        </p>
      ))}
      {form.lightOn !== form.shines && <p className="mb-2">{form.light}</p>}
      <nav aria-label="This form" className="mb-3 flex flex-wrap gap-1 border-b border-line">
        {sections.map(([key, words]) => (
          <NavLink
            key={key}
            to={key === "build" ? `/forms/${form.id}` : `/forms/${form.id}/${key}`}
            aria-current={key === section ? "page" : undefined}
            className={`-mb-px border-b-2 px-3 py-1 ${key === section ? "border-dusk font-semibold" : "border-transparent hover:border-edge"}`}
          >
            {words}
          </NavLink>
        ))}
      </nav>
      <Failure
        error={(clashes.length === 0 && building.error) || publish.error || light.error}
        takesFocus={publish.isError || light.isError}
      />
      <FormClashes building={building} />
      {section === "settings" ? (
        <Wide>
          <FormSettings id={form.id} />
        </Wide>
      ) : section === "screening" ? (
        <Wide>
          <ScreeningTab id={form.id} building={building} />
        </Wide>
      ) : section === "versions" ? (
        <Wide>
          <Versions form={form} saveNow={building.saveNow} broughtBack={broughtBack} onBroughtBack={onBroughtBack} />
        </Wide>
      ) : section === "ways-in" ? (
        <Wide>
          <div className="grid items-start gap-6 lg:grid-cols-2">
            <div className="grid gap-6">
              <Share form={form} />
              <WaysIn form={form} />
            </div>
            <PersonalLinks id={form.id} />
          </div>
        </Wide>
      ) : (
        <Workbench id={form.id} building={building} />
      )}
    </main>
  );
}

const Wide = ({ children }: { children: ReactNode }) => <div className="w-full max-w-page">{children}</div>;

function Step(props: { label: string; disabled: boolean; onClick: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-label={props.label}
      title={props.label}
      aria-disabled={props.disabled || undefined}
      className="rounded-soft p-1.5 text-dusk hover:bg-card aria-disabled:opacity-40"
      onClick={() => !props.disabled && props.onClick()}
    >
      {props.children}
    </button>
  );
}
