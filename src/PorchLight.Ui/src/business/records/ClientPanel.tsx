import { useState } from "react";
import { X } from "lucide-react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, Navigate, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { controlLook } from "../../kit/fields";
import { FitMark } from "../../kit/marks";
import { useNotice } from "../../kit/Notice";
import { PanelHead, PanelWaiting, Section, TimelineList } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { api } from "../client";
import { Differences } from "../edits/Differences";
import { useSession } from "../shell/session";
import { useTitle } from "../shell/useTitle";
import { EraseClient } from "./EraseClient";
import { FieldRows } from "./FieldRows";
import { Notes } from "./Notes";
import { People } from "./People";
import { ProjectHead } from "./ProjectHead";
import { SamePerson } from "./SamePerson";
import { standings, standingWords } from "./standings";

type View = Schemas["ClientView"];

/** One client with everything on file, each value with where it came from and to be changed where it stands. */
export function ClientPanel() {
  const { id = "" } = useParams();
  const { role } = useSession();
  const [isErasing, setErasing] = useState(false);
  const query = useQuery({
    queryKey: ["client", id],
    queryFn: () => orProblem(api.GET("/api/clients/{id}", { params: { path: { id } } })),
    enabled: !isErasing,
  });
  useTitle(query.data?.name);
  const client = query.data;
  if (!client) return <PanelWaiting title="Client" home="/clients" error={query.error} />;
  // Its records went into another's.
  if (client.id !== id) return <Navigate to={`/clients/${client.id}`} replace />;
  const open = client.differences.filter((one) => !one.settlement).length;
  const glance = client.fields.filter((one) => one.field.atAGlance);
  const people = client.fields.find((one) => one.field.key === "client.people");
  const others = client.fields.filter(
    (one) => !one.field.atAGlance && one !== people && one.field.key !== "client.name",
  );
  const name = client.fields.filter((one) => one.field.key === "client.name");
  return (
    <div key={id} className="p-8">
      <PanelHead title={client.name} home="/clients" under={`With us since ${client.since}.`} />
      <Standing client={client} />
      <SamePerson client={client} />
      <div className="grid gap-x-8 @5xl/panel:grid-cols-[minmax(0,1fr)_20rem]">
        <div>
          {client.differences.length > 0 && (
            <section className={`mt-6 rounded-soft p-4 ${open > 0 ? "bg-glow" : "bg-mist"}`}>
              <h2 className="mb-2 text-[1.07rem]">
                {open === 0
                  ? "Differences, settled"
                  : open === 1
                    ? "One answer differs from what you have"
                    : `${open} answers differ from what you have`}
              </h2>
              <Differences differences={client.differences} />
            </section>
          )}
          <div className="grid gap-x-8 @3xl/panel:grid-cols-2">
            <Section title="At a glance">
              <FieldRows client={id} project={null} fields={[...name, ...glance]} />
            </Section>
            <div>
              {people && (
                <Section title={people.field.label}>
                  <People client={id} mainContact={client.name} others={client.people} people={people} />
                </Section>
              )}
              <Section title="Notes">
                <Notes client={id} project={null} notes={client.notes} />
              </Section>
            </div>
          </div>
          <Section title="More about them">
            <FieldRows client={id} project={null} fields={others} />
          </Section>
          {client.projects.map((project) => (
            <Section key={project.id} title={`Project: ${project.title}`}>
              <ProjectHead client={id} project={project} />
              <FieldRows client={id} project={project.id} fields={project.fields} />
              <h3 className="mt-3 mb-1 font-body font-semibold">Notes on it</h3>
              <Notes client={id} project={project.id} notes={project.notes} />
              <ul className="mt-3 grid gap-1">
                {project.inquiries.map((inquiry) => (
                  <li key={inquiry.id}>
                    <Link to={`/inquiries/${inquiry.id}`} className="inline-flex items-center gap-3 underline">
                      <FitMark fit={inquiry.fit} /> inquiry of {inquiry.received}
                    </Link>
                  </li>
                ))}
              </ul>
            </Section>
          ))}
        </div>
        <Section title="What happened">
          <TimelineList entries={client.timeline} />
        </Section>
      </div>
      {role === "owner" && (
        <p className="mt-8 border-t border-line pt-3">
          <EraseClient client={id} name={client.name} onErasing={setErasing} />
        </p>
      )}
    </div>
  );
}

/** How the business stands with them, and the words it sorts them by. */
function Standing({ client }: { client: View }) {
  const queries = useQueryClient();
  const say = useNotice();
  const [tag, setTag] = useState("");
  const refresh = () => queries.invalidateQueries();
  const put = (standing: Schemas["Standing"]) =>
    orProblem(api.PUT("/api/clients/standing", { body: [{ client: client.id, standing }] }));
  const standing = useMutation({
    mutationFn: put,
    onSuccess: (_, to) => {
      void refresh();
      say({
        words: `${client.name}: ${standingWords[to]}.`,
        undo: async () => {
          await put(client.standing);
          await refresh();
        },
      });
    },
  });
  const tags = useMutation({
    mutationFn: (change: { add: string[]; remove: string[] }) =>
      orProblem(api.PUT("/api/clients/tags", { body: { clients: [client.id], ...change } })),
    onSuccess: () => {
      setTag("");
      void refresh();
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
              aria-label={`Take away the tag ${one}`}
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
      <Failure error={standing.error ?? tags.error} />
    </>
  );
}
