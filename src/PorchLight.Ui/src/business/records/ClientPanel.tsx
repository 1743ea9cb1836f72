import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { FitMark } from "../../kit/marks";
import { PanelHead, PanelWaiting, Section, TimelineList } from "../../kit/Panel";
import { api } from "../client";
import { useTitle } from "../shell/useTitle";
import { standingWords } from "./ClientList";

/** One client with everything on file, each value with where it came from. */
export function ClientPanel() {
  const { id = "" } = useParams();
  const query = useQuery({
    queryKey: ["client", id],
    queryFn: () => orProblem(api.GET("/api/clients/{id}", { params: { path: { id } } })),
  });
  useTitle(query.data?.name);
  const client = query.data;
  if (!client) return <PanelWaiting title="Client" home="/clients" error={query.error} />;
  return (
    <div className="p-8">
      <PanelHead
        title={client.name}
        home="/clients"
        under={`${standingWords[client.standing]}, with us since ${client.since}.`}
      />
      <Values values={client.values} notes={client.notes} />
      {client.projects.map((project) => (
        <Section key={project.id} title={`Project: ${project.title}`}>
          <p className="mb-2 text-slate">
            {project.open ? "Open" : "Closed"}, begun {project.opened}.
          </p>
          <Values values={project.values} notes={project.notes} />
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
      <Section title="What happened">
        <TimelineList entries={client.timeline} />
      </Section>
    </div>
  );
}

function Values({ values, notes }: { values: Schemas["ValueOnFile"][]; notes: Schemas["NoteOnFile"][] }) {
  if (values.length === 0 && notes.length === 0) return <p className="text-slate">Nothing is on file yet.</p>;
  return (
    <dl className="grid gap-y-2.5">
      {values.map((value, index) => {
        const next = values[index + 1];
        // Values that came together say where they came from once.
        const last = next?.source !== value.source || next.at !== value.at;
        return (
          <Entry
            key={value.label}
            label={value.label}
            words={value.words}
            asked={`Asked as “${value.asked}”`}
            source={last ? value.source : null}
            at={value.at}
            exactly={value.exactly}
          />
        );
      })}
      {notes.map((note, index) => (
        <Entry
          key={`note ${index}`}
          label={note.heading}
          words={note.text}
          asked={undefined}
          source={`${note.by}, added to the notes`}
          at={note.at}
          exactly={note.exactly}
        />
      ))}
    </dl>
  );
}

interface EntryProps {
  label: string;
  words: string;
  /** What was asked, for who hovers. */
  asked: string | undefined;
  /** Where it came from; null when the next entry says so for both. */
  source: string | null;
  at: string;
  exactly: string;
}

function Entry({ label, words, asked, source, at, exactly }: EntryProps) {
  return (
    <div className="grid grid-cols-[minmax(0,2fr)_minmax(0,5fr)] gap-x-4">
      <dt className="text-slate" title={asked}>
        {label}
      </dt>
      <dd className="whitespace-pre-wrap wrap-anywhere">
        {words}
        {source && (
          <span className="block text-[0.9rem] text-slate" title={exactly}>
            {source}, {at}
          </span>
        )}
      </dd>
    </div>
  );
}
