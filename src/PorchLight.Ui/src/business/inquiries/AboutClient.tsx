import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link } from "react-router";
import { buttonLook } from "../../kit/Button";
import { Section } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { Notes } from "../clientParts/Notes";

/** What is on file beside the inquiry: who is perhaps the same person, and the notes. */
export function AboutClient({ client, project }: { client: string; project: string }) {
  const query = useQuery(
    ask(["client", client], () => api.GET("/api/clients/{id}", { params: { path: { id: client } } })),
  );
  if (!query.data) return <Failure error={query.error} />;
  const { perhapsSame, notes, projects } = query.data;
  return (
    <>
      {perhapsSame.length > 0 && (
        <ul aria-label="Perhaps the same" className="mt-6 grid gap-2">
          {perhapsSame.map((other) => (
            <li key={other.id} className="flex flex-wrap items-center justify-between gap-2 rounded-soft bg-mist p-3">
              <span className="min-w-0">
                Perhaps the same as <strong>{other.name}</strong>: they have {other.why}.
              </span>
              <Link className={buttonLook("plain")} to={`/clients/${client}/beside/${other.id}`}>
                Look at both
              </Link>
            </li>
          ))}
        </ul>
      )}
      <Section title="Notes">
        <Notes
          client={client}
          project={project}
          notes={[...(projects.find((one) => one.id === project)?.notes ?? []), ...notes]}
        />
      </Section>
    </>
  );
}
