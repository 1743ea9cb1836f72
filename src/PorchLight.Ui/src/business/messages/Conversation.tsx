import { useState } from "react";
import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useFocusBack } from "../../kit/useFocusBack";
import { Section } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { WriteMail } from "./WriteMail";

type View = Schemas["ConversationView"];
type Message = Schemas["MessageOnFile"];

const sorts: Record<Schemas["MessageSort"], string> = {
  ours: "You wrote",
  byItself: "Sent automatically",
  theirs: "They wrote",
  automatic: "Automatic reply",
  cameBack: "Returned undelivered",
};

const shownAtFirst = 4;

/** What went to a client by mail and what came from them, with an answer on the spot. */
export function Conversation({ client }: { client: string }) {
  const [isWriting, setWriting] = useState(false);
  const button = useFocusBack(isWriting);
  const [isWhole, setWhole] = useState(false);
  const query = useQuery(
    ask(["conversation", client], () => api.GET("/api/clients/{id}/messages", { params: { path: { id: client } } })),
  );
  const view = query.data;
  if (!view) return query.error ? <Failure error={query.error} /> : null;
  const shown = isWhole ? view.messages : view.messages.slice(0, shownAtFirst);
  return (
    <Section title={`Mail with ${view.name}`}>
      {isWriting ? (
        <Answer client={client} view={view} onDone={() => setWriting(false)} />
      ) : (
        view.to && (
          <p className="mb-3">
            <Button ref={button} onClick={() => setWriting(true)}>
              {view.answers ? "Answer" : "Write a message"}
            </Button>
          </p>
        )
      )}
      {view.messages.length === 0 && (
        <p className="text-slate">
          {view.to ? "No messages yet." : "They left no e-mail address. Add one to write to them."}
        </p>
      )}
      <ol className="grid gap-2">
        {shown.map((message, index) => (
          <li key={message.id}>
            <Letter message={message} isOpen={index === 0 && message.sort === "theirs"} />
          </li>
        ))}
      </ol>
      {shown.length < view.messages.length && (
        <Button weight="quiet" className="mt-2 -ml-3" onClick={() => setWhole(true)}>
          Show all {view.messages.length}
        </Button>
      )}
    </Section>
  );
}

function Letter({ message, isOpen }: { message: Message; isOpen: boolean }) {
  const isTheirs = message.sort === "theirs";
  return (
    <details open={isOpen} className={`rounded-soft border border-edge ${isTheirs ? "bg-glow" : "bg-card"}`}>
      <summary className="cursor-pointer px-3 py-2">
        <span className="inline-flex w-[calc(100%-1.5rem)] flex-wrap justify-between gap-x-4 align-top">
          <span className="min-w-0">
            <span className={isTheirs ? "font-semibold" : ""}>{sorts[message.sort]}</span>: {message.subject}
          </span>
          <time className="text-slate tabular-nums" title={message.exactly}>
            {message.at}
          </time>
        </span>
      </summary>
      <div className="border-t border-line px-3 py-2">
        {message.state && <p className="mb-2 font-semibold text-brick">{message.state}</p>}
        <p className="whitespace-pre-wrap wrap-anywhere">{message.text}</p>
        {message.quoted && (
          <details className="mt-2">
            <summary className="cursor-pointer text-slate">What they quoted</summary>
            <p className="mt-1 border-l-4 border-line pl-3 whitespace-pre-wrap wrap-anywhere text-slate">
              {message.quoted}
            </p>
          </details>
        )}
      </div>
    </details>
  );
}

function Answer({ client, view, onDone }: { client: string; view: View; onDone: () => void }) {
  return (
    <WriteMail
      client={client}
      to={view.to ?? ""}
      name={view.name}
      subject={view.subject}
      keepsSubject={!!view.answers}
      keptAs={`porch-light:message:${client}`}
      sendWords="Send it"
      send={(draft, headers) =>
        orProblem(
          api.POST("/api/clients/{id}/messages", {
            params: { path: { id: client } },
            body: { draft, answers: view.answers },
            headers,
          }),
        )
      }
      onSent={onDone}
      onLater={onDone}
    />
  );
}
