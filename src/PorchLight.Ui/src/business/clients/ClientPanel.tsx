import { useState } from "react";
import { X } from "lucide-react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link, Navigate, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { controlLook } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Panel, PanelWaiting } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { Differences } from "../clientParts/Differences";
import { useRecent } from "../shell/recent";
import { useSession } from "../shell/session";
import { useTitle } from "../shell/useTitle";
import { ArrangedParts, fieldsOf } from "./ArrangedParts";
import { BeginProject } from "./BeginProject";
import { besideRecords } from "./besideRecords";
import { EraseClient } from "./EraseClient";
import { FieldRows } from "./FieldRows";
import { Notes } from "../clientParts/Notes";
import { People } from "./People";
import { ProjectDays } from "./ProjectDays";
import { ProjectHead } from "./ProjectHead";
import { SamePerson } from "./SamePerson";
import { Tasks } from "./Tasks";
import { standings, standingWords } from "./standings";

type View = Schemas["ClientView"];

/** One client with everything on file, each value with where it came from and to be changed where it stands. */
export function ClientPanel() {
  const { id = "" } = useParams();
  const { role, name } = useSession();
  const [isErasing, setErasing] = useState(false);
  const query = useQuery({
    ...ask(["client", id], () => api.GET("/api/clients/{id}", { params: { path: { id } } })),
    enabled: !isErasing,
  });
  useTitle(query.data?.name);
  useRecent(name ?? "", query.data?.id);
  const client = query.data;
  if (!client) return <PanelWaiting title="Client" home="/clients" error={query.error} />;
  // Its records went into another's.
  if (client.id !== id) return <Navigate to={`/clients/${client.id}`} replace />;
  const open = client.differences.filter((one) => !one.settlement).length;
  const people = client.fields.find((one) => one.field.key === "client.people");
  return (
    <Panel key={id} title={client.name} home="/clients" under={`With us since ${client.since}.`}>
      <Standing client={client} />
      <SamePerson client={client} />
      <div className="grid gap-x-8 @5xl/panel:grid-cols-[minmax(0,1fr)_20rem]">
        <div>
          {client.differences.length > 0 && (
            <section className={`mt-6 rounded-soft p-4 ${open > 0 ? "bg-glow" : "bg-mist"}`}>
              <h2 className="mb-2 text-section">
                {open === 0
                  ? "Differences, settled"
                  : open === 1
                    ? "One answer differs from what you have"
                    : `${open} answers differ from what you have`}
              </h2>
              <Differences differences={client.differences} />
            </section>
          )}
          <ArrangedParts scope="client">
            {(part) => {
              switch (part.kind) {
                case "people":
                  return (
                    people && <People client={id} mainContact={client.name} others={client.people} people={people} />
                  );
                case "notes":
                  return <Notes client={id} project={null} notes={client.notes} />;
                case "tasks":
                  return <Tasks client={id} project={null} tasks={client.tasks.filter((one) => !one.projectId)} />;
                case "projects":
                  return <Projects client={client} />;
                default:
                  return (
                    part.fields.length > 0 && (
                      <FieldRows client={id} project={null} fields={fieldsOf(part, client.fields)} />
                    )
                  );
              }
            }}
          </ArrangedParts>
        </div>
        <div>
          {Object.entries(besideRecords).map(([key, Part]) => (
            <Part key={key} client={client} />
          ))}
        </div>
      </div>
      {role === "owner" && (
        <div className="mt-8 flex flex-wrap items-center gap-4 border-t border-line pt-3">
          <Link className="text-slate underline" to="/settings/views/client">
            Arrange this view
          </Link>
          <a
            className="text-slate underline"
            href={`/api/clients/${id}/everything.json`}
            download={`${client.name}.json`}
          >
            Save everything on file
          </a>
          <EraseClient client={id} name={client.name} onErasing={setErasing} />
        </div>
      )}
    </Panel>
  );
}

/** Their pieces of work, the newest first, each with what one looks for first. */
function Projects({ client }: { client: View }) {
  return (
    <>
      <ul className="grid gap-4">
        {client.projects.map((project) => (
          <li key={project.id} className="rounded-soft border border-edge p-4">
            <h3 className="mb-2 flex flex-wrap items-baseline gap-x-3 font-body">
              <Link className="font-semibold underline" to={`/clients/${client.id}/projects/${project.id}`}>
                {project.title}
              </Link>
              <span className="font-normal text-slate">
                {[project.service, project.looksAfterName && `${project.looksAfterName} looks after it`]
                  .filter(Boolean)
                  .join(" · ")}
              </span>
            </h3>
            <ProjectHead client={client.id!} project={project} />
            <ProjectDays days={project.days} />
            <div className="mt-3">
              <FieldRows
                client={client.id!}
                project={project.id!}
                fields={project.fields.filter((one) => one.field.atAGlance)}
              />
            </div>
          </li>
        ))}
      </ul>
      <BeginProject client={client.id!} />
    </>
  );
}

/** How the business stands with them, and the words it sorts them by. */
function Standing({ client }: { client: View }) {
  const say = useNotice();
  const [tag, setTag] = useState("");
  const put = (standing: Schemas["Standing"]) =>
    orProblem(api.PUT("/api/clients/standing", { body: [{ client: client.id, standing }] }));
  const standing = useMutation({
    mutationFn: put,
    onSuccess: (_, to) => {
      say({
        words: `${client.name}: ${standingWords[to]}.`,
        undo: async () => {
          await put(client.standing);
        },
      });
    },
  });
  const always = useMutation({
    mutationFn: (on: boolean) =>
      orProblem(
        api.PUT("/api/clients/{id}/always-comes-in", { params: { path: { id: client.id } }, body: { always: on } }),
      ),
  });
  const tags = useMutation({
    mutationFn: (change: { add: string[]; remove: string[] }) =>
      orProblem(api.PUT("/api/clients/tags", { body: { clients: [client.id], ...change } })),
    onSuccess: () => {
      setTag("");
    },
  });
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        <select
          aria-label="Standing"
          className={controlLook}
          value={client.standing}
          onChange={(e) => standing.mutate(e.target.value as Schemas["Standing"])}
        >
          {standings.map((one) => (
            <option key={one} value={one}>
              {standingWords[one]}
            </option>
          ))}
        </select>
        {client.tags.map((one) => (
          <span
            key={one}
            className="inline-flex items-center gap-1 rounded-soft border border-edge bg-mist px-2 py-0.5"
          >
            {one}
            <button
              type="button"
              aria-label={`Remove the tag ${one}`}
              className="rounded-soft p-0.5 text-slate hover:text-ink"
              onClick={() => tags.mutate({ add: [], remove: [one] })}
            >
              <X size={14} aria-hidden />
            </button>
          </span>
        ))}
        <form
          className="flex gap-1"
          onSubmit={(e) => {
            e.preventDefault();
            if (tag.trim() && !tags.isPending) tags.mutate({ add: [tag], remove: [] });
          }}
        >
          <input
            aria-label="Another tag"
            placeholder="another tag"
            className={`${controlLook} w-32`}
            value={tag}
            onChange={(e) => setTag(e.target.value)}
          />
          {tag.trim() && (
            <Button type="submit" disabled={tags.isPending}>
              Add
            </Button>
          )}
        </form>
      </div>
      <label className="mt-2 flex items-center gap-2">
        <input
          type="checkbox"
          className="size-4 accent-dusk"
          checked={client.alwaysComesIn}
          disabled={always.isPending}
          onChange={(e) => always.mutate(e.target.checked)}
        />
        Always welcome, never screened out
      </label>
      <Failure error={standing.error ?? tags.error ?? always.error} />
    </>
  );
}
