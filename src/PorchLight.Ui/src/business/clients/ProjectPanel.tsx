import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link, useParams } from "react-router";
import { FitMark } from "../../kit/marks";
import { Panel, PanelWaiting, Section, TimelineList } from "../../kit/Panel";
import { NothingHere } from "../shell/NothingHere";
import { useSession } from "../shell/session";
import { useTitle } from "../shell/useTitle";
import { api } from "../../api/client";
import { ArrangedParts, fieldsOf } from "./ArrangedParts";
import { FieldRows } from "./FieldRows";
import { Notes } from "../clientParts/Notes";
import { Runs } from "../runs/Runs";
import { People } from "./People";
import { ProjectDays } from "./ProjectDays";
import { ProjectHead } from "./ProjectHead";
import { Tasks } from "./Tasks";

/** One piece of work with everything on file of it. */
export function ProjectPanel() {
  const { id = "", project: wanted = "" } = useParams();
  const { role } = useSession();
  const query = useQuery(ask(["client", id], () => api.GET("/api/clients/{id}", { params: { path: { id } } })));
  const client = query.data;
  const project = client?.projects.find((one) => one.id === wanted);
  useTitle(project && `${project.title}, ${client?.name}`);
  const home = `/clients/${id}`;
  if (!client) return <PanelWaiting title="Project" home={home} error={query.error} />;
  if (!project) return <NothingHere />;
  const people = client.fields.find((one) => one.field.key === "client.people");
  const timeline = client.timeline.filter((one) => one.projectId === wanted);
  return (
    <Panel
      key={wanted}
      title={project.title}
      home={home}
      under={
        <>
          {project.service && `${project.service}, `}
          for{" "}
          <Link className="underline" to={home}>
            {client.name}
          </Link>
          . {project.open ? "Open" : "Closed"}, begun {project.opened}.
        </>
      }
    >
      <ProjectHead client={id} project={project} />
      <div className="grid gap-x-8 @5xl/panel:grid-cols-[minmax(0,1fr)_20rem]">
        <div>
          <ArrangedParts scope="project" service={project.serviceKey}>
            {(part) => {
              switch (part.kind) {
                case "days":
                  return <ProjectDays days={project.days} />;
                case "people":
                  return (
                    people && <People client={id} mainContact={client.name} others={client.people} people={people} />
                  );
                case "notes":
                  return <Notes client={id} project={project.id!} notes={project.notes} />;
                case "tasks":
                  return (
                    <Tasks
                      client={id}
                      project={project.id!}
                      tasks={client.tasks.filter((one) => one.projectId === wanted)}
                    />
                  );
                default:
                  return (
                    part.fields.length > 0 && (
                      <FieldRows client={id} project={project.id!} fields={fieldsOf(part, project.fields)} />
                    )
                  );
              }
            }}
          </ArrangedParts>
          {project.inquiries.length > 0 && (
            <Section title="Where it came from">
              <ul className="grid gap-1">
                {project.inquiries.map((inquiry) => (
                  <li key={inquiry.id}>
                    <Link to={`/inquiries/${inquiry.id}`} className="inline-flex items-center gap-3 underline">
                      <FitMark fit={inquiry.fit} /> inquiry of {inquiry.received}
                    </Link>
                  </li>
                ))}
              </ul>
            </Section>
          )}
        </div>
        <div>
          <Runs client={id} project={wanted} startsFor={wanted} />
          <Section title="What happened">
            {timeline.length > 0 ? (
              <TimelineList entries={timeline} />
            ) : (
              <p className="text-slate">Nothing has happened yet.</p>
            )}
          </Section>
        </div>
      </div>
      {role === "owner" && (
        <p className="mt-8 border-t border-line pt-3">
          <Link
            className="text-slate underline"
            to={`/settings/views/${project.serviceKey ? `project-${project.serviceKey}` : "project"}`}
          >
            Arrange this view
          </Link>
        </p>
      )}
    </Panel>
  );
}
