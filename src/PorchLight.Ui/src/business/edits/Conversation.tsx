import { useState, type FormEvent } from "react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { boxLook, GrowingText, TextBox } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Section } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { api } from "../client";
import { FromLibrary, wordsFor } from "./FromLibrary";
import { useSendKey } from "../useSendKey";

type View = Schemas["ConversationView"];
type Message = Schemas["MessageOnFile"];

const sorts: Record<Schemas["MessageSort"], string> = {
  ours: "You wrote",
  byItself: "Went by itself",
  theirs: "They wrote",
  automatic: "An automatic answer, no reply",
  cameBack: "Came back",
};

const shownAtFirst = 4;

/** What went to a client by mail and what came from them, with an answer on the spot. */
export function Conversation({ client }: { client: string }) {
  const [isWriting, setWriting] = useState(false);
  const [isWhole, setWhole] = useState(false);
  const query = useQuery({
    queryKey: ["conversation", client],
    queryFn: () => orProblem(api.GET("/api/clients/{id}/messages", { params: { path: { id: client } } })),
  });
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
            <Button onClick={() => setWriting(true)}>{view.answers ? "Answer" : "Write to them"}</Button>
          </p>
        )
      )}
      {view.messages.length === 0 && (
        <p className="text-slate">
          {view.to ? "Nothing was written yet." : "They left no e-mail address. Add one to write to them."}
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
  const queries = useQueryClient();
  const notice = useNotice();
  const sendKey = useSendKey();
  const keptAs = `porch-light:message:${client}`;
  const [subject, setSubject] = useState(view.subject);
  const [text, setText] = useState(() => sessionStorage.getItem(keptAs) ?? "");
  const send = useMutation({
    mutationFn: () => {
      const body = { subject, text, answers: view.answers };
      return orProblem(
        api.POST("/api/clients/{id}/messages", {
          params: { path: { id: client } },
          body,
          headers: sendKey.for(body),
        }),
      );
    },
    onSuccess: () => {
      sendKey.done();
      sessionStorage.removeItem(keptAs);
      notice({ words: `Sent to ${view.name}.` });
      void queries.invalidateQueries();
      onDone();
    },
  });
  // The words stay with this window until they are sent, whatever is opened meanwhile.
  const write = (words: string) => {
    setText(words);
    sessionStorage.setItem(keptAs, words);
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!send.isPending) send.mutate();
  };
  return (
    <form onSubmit={submit} className="mb-3 grid gap-3 rounded-soft border border-edge p-4">
      <p className="text-slate">To {view.to}</p>
      <FromLibrary
        label="Begin with a message from the library"
        onTake={(message) =>
          void wordsFor(message, client).then((words) => {
            if (!view.answers) setSubject(words.subject);
            write(text.trim() ? `${text.trim()}\n\n${words.text}` : words.text);
          })
        }
      />
      <TextBox label="Subject" value={subject} onChange={(e) => setSubject(e.target.value)} />
      <label className="block">
        <span className="mb-1 block font-semibold">Your words</span>
        <GrowingText className={`${boxLook} min-h-28`} value={text} onChange={(e) => write(e.target.value)} />
      </label>
      <Failure error={send.error} />
      <div className="flex gap-2">
        <Button weight="main" type="submit" disabled={send.isPending}>
          Send it
        </Button>
        <Button weight="quiet" onClick={onDone}>
          Write later
        </Button>
      </div>
    </form>
  );
}
