import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { ask } from "../../api/ask";
import { api } from "../../api/client";
import type { Schemas } from "../../api/problem";
import { Section } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { BookMeeting } from "./BookMeeting";

interface Props {
  client: string;
  name: string;
  /** What a meeting booked here is about; null for nothing in particular. */
  inquiry: string | null;
}

const states: Record<Schemas["MeetingState"], string> = {
  booked: "",
  cancelled: "cancelled",
  missed: "did not come",
};

/** The meetings with a client, and a way to book another. */
export function Meetings({ client, name, inquiry }: Props) {
  const query = useQuery(
    ask(["meetings", client], () => api.GET("/api/meetings/of-client/{client}", { params: { path: { client } } })),
  );
  const rows = query.data ?? [];
  return (
    <Section title="Meetings">
      <Failure error={query.error} />
      {rows.length > 0 && (
        <ul className="mb-2 grid gap-1.5">
          {rows.map((row) => (
            <li key={row.id} className={row.isToCome ? "rounded-soft bg-glow p-2" : ""}>
              <Link to={`/calendar/${row.id}`} className="underline" title={row.exactly}>
                <span className="inline-block first-letter:uppercase">{row.when}</span>
              </Link>
              {states[row.state] && <strong className="ml-2">{states[row.state]}</strong>}
              <span className="block text-slate">{row.detail}</span>
            </li>
          ))}
        </ul>
      )}
      <BookMeeting client={client} name={name} inquiry={inquiry} />
    </Section>
  );
}
