import { useEffect, useRef, useState, type FormEvent } from "react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { boxLook, GrowingText, TextBox } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../client";
import { FromLibrary, wordsFor } from "../edits/FromLibrary";
import { useSendKey } from "../useSendKey";

/** A first personal word, which keeps the promise. */
export function ReplyForm({ inquiry, onDone }: { inquiry: Schemas["InquiryView"]; onDone: () => void }) {
  const queries = useQueryClient();
  const [subject, setSubject] = useState(`Re: ${inquiry.form}`);
  const keptAs = `porch-light:reply:${inquiry.id}`;
  const [text, setText] = useState(() => sessionStorage.getItem(keptAs) ?? "");
  const form = useRef<HTMLFormElement>(null);
  const sendKey = useSendKey();
  // Whoever asks to reply goes on writing.
  useEffect(() => form.current?.querySelector("textarea")?.focus(), []);
  const send = useMutation({
    mutationFn: () => {
      const body = { subject, text };
      return orProblem(
        api.POST("/api/inquiries/{id}/reply", {
          params: { path: { id: inquiry.id } },
          body,
          headers: sendKey.for(body),
        }),
      );
    },
    onSuccess: () => {
      sessionStorage.removeItem(keptAs);
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
    <form ref={form} onSubmit={submit} className="mt-4 grid gap-3 rounded-soft border border-edge p-4">
      <p className="text-slate">To {inquiry.email}</p>
      <FromLibrary
        label="Begin with a message from the library"
        onTake={(message) =>
          void wordsFor(message, inquiry.clientId).then((words) =>
            write(text.trim() ? `${text.trim()}\n\n${words.text}` : words.text),
          )
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
          Send the reply
        </Button>
        <Button weight="quiet" onClick={onDone}>
          Write later
        </Button>
      </div>
    </form>
  );
}
