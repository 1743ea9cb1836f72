import { Page } from "../../kit/Page";
import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link } from "react-router";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useTitle } from "../shell/useTitle";

/** The simulated phones and pages of clients. */
export function PracticeTexts() {
  useTitle("Practice texts and page notes");
  const notes = useQuery(ask(["practice-texts"], () => api.GET("/api/practice/texts")));
  return (
    <Page title="Practice texts and page notes">
      <p className="mb-4 text-slate">
        What your clients would read on their phones and on their own pages. It stays in this program.
      </p>
      <Failure error={notes.error} />
      {notes.isPending && <Skeleton />}
      {notes.data?.length === 0 && (
        <Empty>Nothing was sent yet. Let a step of a follow-through go as a text message or a note.</Empty>
      )}
      <ul className="grid max-w-3xl gap-3">
        {notes.data?.map((note) => (
          <li key={note.id} className="rounded-soft bg-card p-4 shadow-soft">
            <p className="text-slate">
              {note.phone ? `Text message to ${note.phone}, ` : "Note on the page of "}
              <Link to={`/clients/${note.clientId}`} className="underline">
                {note.name}
              </Link>
              , {note.at}
            </p>
            <p className="mt-1 whitespace-pre-wrap wrap-anywhere">{note.text}</p>
          </li>
        ))}
      </ul>
    </Page>
  );
}
