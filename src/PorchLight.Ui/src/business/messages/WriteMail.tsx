import { useRef, useState } from "react";
import { useMutation } from "@tanstack/react-query";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { newKey } from "../../kit/newKey";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { DraftEditor } from "./DraftEditor";
import { EnclosedFields } from "./EnclosedFields";
import { FromLibrary } from "./FromLibrary";
import { keptMail, useMailGoing } from "./useMailGoing";
import { useMessageParts } from "./useMessageParts";
import { useWritingKeys } from "./useWritingKeys";
import { useSendKey } from "../../api/useSendKey";

type Draft = Schemas["MessageDraft"];

interface Props {
  client: string;
  to: string;
  /** What they are called once it goes. */
  name: string;
  subject: string;
  /** Whether a message taken from the library keeps this subject. */
  keepsSubject: boolean;
  /** Names the words in this window until they are sent, whatever is opened meanwhile. */
  keptAs: string;
  sendWords: string;
  send: (draft: Draft, headers: ReturnType<ReturnType<typeof useSendKey>["for"]>) => Promise<Schemas["MailGoing"]>;
  onSent: () => void;
  onLater: () => void;
}

const blank = (subject: string): Draft => ({ subject, parts: [{ kind: "text", key: "text", text: "" }] });

const isBlank = (draft: Draft) => draft.parts.every((part) => part.kind === "text" && !part.text.trim());

/** A message of the library behind the words that stand there, or instead of none. */
function taken(draft: Draft, from: Draft, keepsSubject: boolean): Draft {
  const parts = from.parts.map((part) => ({ ...part, key: newKey().slice(0, 8) }));
  const [ours, theirs] = [draft.enclosed, from.enclosed];
  return {
    subject: keepsSubject || !isBlank(draft) ? draft.subject : from.subject,
    parts: isBlank(draft) ? parts : [...draft.parts, ...parts],
    enclosed: {
      cc: [...new Set([...(ours?.cc ?? []), ...(theirs?.cc ?? [])])],
      files: [...new Set([...(ours?.files ?? []), ...(theirs?.files ?? [])])],
      sender: ours?.sender ?? theirs?.sender ?? null,
    },
  };
}

/** A message written by hand, or begun with one of the library; what is a gap there has to be filled here. */
export function WriteMail({
  client,
  to,
  name,
  subject,
  keepsSubject,
  keptAs,
  sendWords,
  send,
  onSent,
  onLater,
}: Props) {
  const sendKey = useSendKey();
  const goes = useMailGoing();
  const parts = useMessageParts();
  const [draft, setDraft] = useState(() => keptMail.read(keptAs) ?? blank(subject));
  const form = useRef<HTMLFormElement>(null);
  const sending = useMutation({
    mutationFn: () => send(draft, sendKey.for(draft)),
    onSuccess: (going) => {
      sendKey.done();
      keptMail.forget(keptAs);
      goes(going, name, draft, keptAs);
      onSent();
    },
  });
  const write = (next: Draft) => {
    setDraft(next);
    keptMail.write(keptAs, next);
  };
  const take = useMutation({
    mutationFn: (message: Schemas["MessageTemplate"]) =>
      orProblem(api.POST("/api/library/messages/preview", { body: { message, clientId: client, builtIn: null } })),
    onSuccess: (preview) => write(taken(draft, preview.draft, keepsSubject)),
  });
  const submit = () => {
    if (!sending.isPending) sending.mutate();
  };
  useWritingKeys(form, submit, onLater);
  return (
    <form
      ref={form}
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
      className="mt-4 grid gap-3"
    >
      <FromLibrary label="Begin with a message from the library" onTake={(message) => take.mutate(message)} />
      <DraftEditor to={to} draft={draft} onChange={write} missing={findingsOf(sending.error)} isOwn takesFocus />
      <EnclosedFields enclosed={draft.enclosed} parts={parts} onChange={(enclosed) => write({ ...draft, enclosed })} />
      <Failure error={sending.error ?? take.error} />
      <div className="flex gap-2">
        <Button weight="main" type="submit" disabled={sending.isPending}>
          {sendWords}
        </Button>
        <Button weight="quiet" onClick={onLater}>
          Write later
        </Button>
      </div>
    </form>
  );
}
