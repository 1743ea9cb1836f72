import { useState } from "react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { TextBox } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../client";

type Head = Schemas["ProjectHead"];

/** Whether a project is open and since when, its title to be changed, closing and opening it again. */
export function ProjectHead({ client, project }: { client: string; project: Schemas["ProjectView"] }) {
  const queries = useQueryClient();
  const say = useNotice();
  const stored: Head = { title: project.title, isOpen: project.open };
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
      void queries.invalidateQueries();
      say({
        words: after.isOpen === was.isOpen ? "The title is changed." : after.isOpen ? "Open again." : "Closed.",
        undo: async () => {
          await put(after, was);
          await queries.invalidateQueries();
        },
      });
    },
  });
  const finding = findingsOf(change.error).get("title");
  return (
    <div className="mb-2">
      {title === null ? (
        <p className="flex flex-wrap items-center gap-x-3 text-slate">
          {project.open ? "Open" : "Closed"}, begun {project.opened}.
          <Button weight="quiet" className="-mx-3" onClick={() => setTitle(project.title)}>
            Change the title
          </Button>
          <Button
            weight="quiet"
            className="-ml-3"
            disabled={change.isPending}
            onClick={() => change.mutate({ was: stored, now: { ...stored, isOpen: !project.open } })}
          >
            {project.open ? "Close it" : "Open it again"}
          </Button>
        </p>
      ) : (
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            if (!change.isPending) change.mutate({ was: stored, now: { ...stored, title } });
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
      {!finding && <Failure error={change.error} />}
    </div>
  );
}
