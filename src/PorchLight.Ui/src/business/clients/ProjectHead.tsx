import { useState } from "react";
import { useMutation } from "@tanstack/react-query";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { controlLook, TextBox } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useProjectParts } from "../clientParts/useProjectParts";

type Head = Schemas["ProjectHead"];

const kinds: [Schemas["StageKind"], string][] = [
  ["open", "Nothing agreed yet"],
  ["parked", "Later"],
  ["won", "Agreed"],
  ["done", "Closed: finished"],
  ["lost", "Closed: will not come"],
];

/** Where a project stands, who looks after it, and its title, each to be changed. */
export function ProjectHead({ client, project }: { client: string; project: Schemas["ProjectView"] }) {
  const say = useNotice();
  const parts = useProjectParts();
  const stored: Head = { title: project.title, stage: project.stage.key, looksAfter: project.looksAfter };
  const [title, setTitle] = useState<string | null>(null);
  const put = (was: Head, now: Head) =>
    orProblem(
      api.PUT("/api/clients/{id}/projects/{project}", {
        params: { path: { id: client, project: project.id! } },
        body: { was, now },
      }),
    );
  const change = useMutation({
    mutationFn: ({ was, now }: { was: Head; now: Head }) => put(was, now),
    onSuccess: (after, { was }) => {
      setTitle(null);
      const stage = parts?.stages.find((one) => one.key === after.stage);
      say({
        words:
          after.title !== was.title
            ? "Title changed."
            : after.stage !== was.stage
              ? `Stage: ${stage?.name}.`
              : "Given.",
        undo: async () => {
          await put(after, was);
        },
      });
    },
  });
  const watch = useMutation({
    mutationFn: (watches: boolean) =>
      orProblem(
        api.PUT("/api/clients/{id}/projects/{project}/watching", {
          params: { path: { id: client, project: project.id! } },
          body: { watches },
        }),
      ),
    onSuccess: (_, watches) => {
      say({ words: watches ? "You will get a mail about anything new." : "You will get no more mails about it." });
    },
  });
  const set = (part: Partial<Head>) => !change.isPending && change.mutate({ was: stored, now: { ...stored, ...part } });
  const finding = findingsOf(change.error).get("title");
  return (
    <div className="mb-3">
      {title === null ? (
        <p className="flex flex-wrap items-center gap-x-4 gap-y-2 text-slate">
          <label className="inline-flex items-center gap-2">
            Stage
            <select className={controlLook} value={stored.stage} onChange={(e) => set({ stage: e.target.value })}>
              {(parts?.stages ?? [project.stage]).length > 0 &&
                kinds.map(([kind, words]) => {
                  const stages = (parts?.stages ?? [project.stage]).filter((one) => one.kind === kind);
                  return (
                    stages.length > 0 && (
                      <optgroup key={kind} label={words}>
                        {stages.map((one) => (
                          <option key={one.key} value={one.key}>
                            {one.name}
                          </option>
                        ))}
                      </optgroup>
                    )
                  );
                })}
            </select>
          </label>
          <label className="inline-flex items-center gap-2">
            Looked after by
            <select
              className={controlLook}
              value={stored.looksAfter ?? ""}
              onChange={(e) => set({ looksAfter: e.target.value || null })}
            >
              <option value="">nobody yet</option>
              {(parts?.team ?? []).map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
              {!parts && stored.looksAfter && <option value={stored.looksAfter}>{project.looksAfterName}</option>}
            </select>
          </label>
          <Button
            weight="quiet"
            className="-mx-3"
            aria-pressed={project.watches}
            disabled={watch.isPending}
            onClick={() => watch.mutate(!project.watches)}
          >
            {project.watches ? "Stop watching" : "Keep me posted"}
          </Button>
          <Button weight="quiet" className="-mx-3" onClick={() => setTitle(project.title)}>
            Change the title
          </Button>
        </p>
      ) : (
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            set({ title });
          }}
        >
          <TextBox
            label="Title of the project"
            value={title}
            error={finding}
            onChange={(e) => setTitle(e.target.value)}
          />
          <Button weight="main" type="submit" disabled={change.isPending}>
            Save
          </Button>
          <Button weight="quiet" onClick={() => setTitle(null)}>
            Cancel
          </Button>
        </form>
      )}
      {project.watchers.length > 0 && <p className="mt-1 text-slate">Also watched by {project.watchers.join(", ")}.</p>}
      {!finding && <Failure error={change.error ?? watch.error} />}
    </div>
  );
}
