import { useState } from "react";
import { Pin } from "lucide-react";
import { useMutation } from "@tanstack/react-query";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useFocusBack } from "../../kit/useFocusBack";
import { boxLook, GrowingText } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useSendKey } from "../../api/useSendKey";

type Note = Schemas["NoteOnFile"];

interface Props {
  client: string;
  project: string | null;
  notes: Note[];
}

/** The notes, pinned ones first, and a place to write another. */
export function Notes({ client, project, notes }: Props) {
  const sendKey = useSendKey();
  const [isWriting, setWriting] = useState(false);
  const button = useFocusBack(isWriting);
  const add = useMutation({
    mutationFn: (text: string) => {
      const body = { projectId: project, text };
      return orProblem(
        api.POST("/api/clients/{id}/notes", { params: { path: { id: client } }, body, headers: sendKey.for(body) }),
      );
    },
    onSuccess: () => {
      sendKey.done();
      setWriting(false);
    },
  });
  return (
    <>
      {notes.length > 0 && (
        <ul className="mb-2 grid gap-3">
          {notes.map((note) => (
            <NoteEntry key={note.id} client={client} note={note} />
          ))}
        </ul>
      )}
      {isWriting ? (
        <Words
          label="A note"
          start=""
          action="Save the note"
          error={add.error}
          isPending={add.isPending}
          onDone={(text) => add.mutate(text)}
          onClose={() => setWriting(false)}
        />
      ) : (
        <Button ref={button} weight="quiet" className="-ml-3" onClick={() => setWriting(true)}>
          Write a note
        </Button>
      )}
    </>
  );
}

function NoteEntry({ client, note }: { client: string; note: Note }) {
  const say = useNotice();
  const [isEditing, setEditing] = useState(false);
  const button = useFocusBack(isEditing);
  const [showsEarlier, setShowsEarlier] = useState(false);
  const path = { id: client, note: note.id };
  const was = { text: note.text, isPinned: note.isPinned };
  const change = useMutation({
    mutationFn: (part: Partial<typeof was>) =>
      orProblem(
        api.PUT("/api/clients/{id}/notes/{note}", { params: { path }, body: { was, now: { ...was, ...part } } }),
      ),
    onSuccess: () => {
      setEditing(false);
    },
  });
  const remove = useMutation({
    mutationFn: () => orProblem(api.DELETE("/api/clients/{id}/notes/{note}", { params: { path } })),
    onSuccess: () => {
      say({ words: "Note deleted." });
    },
  });
  if (isEditing)
    return (
      <li>
        <Words
          label={note.heading || "The note"}
          start={note.text}
          action="Save"
          error={change.error}
          isPending={change.isPending}
          onDone={(text) => change.mutate({ text })}
          onClose={() => setEditing(false)}
        />
      </li>
    );
  return (
    <li className={note.isPinned ? "border-l-4 border-lamp pl-3" : ""}>
      {note.heading && <span className="block text-slate">{note.heading}</span>}
      <span className="block whitespace-pre-wrap wrap-anywhere">{note.text}</span>
      <span className="flex flex-wrap items-center gap-x-1 text-note text-slate">
        <span title={note.exactly}>
          {note.by}, {note.at}
        </span>
        <Button ref={button} weight="quiet" onClick={() => setEditing(true)}>
          Change
        </Button>
        <Button
          weight="quiet"
          aria-pressed={note.isPinned}
          disabled={change.isPending}
          onClick={() => change.mutate({ isPinned: !note.isPinned })}
        >
          <Pin size={14} aria-hidden /> {note.isPinned ? "Unpin" : "Pin"}
        </Button>
        {!note.isAnswer && (
          <Button weight="quiet" disabled={remove.isPending} onClick={() => remove.mutate()}>
            Remove
          </Button>
        )}
        {note.earlier.length > 0 && (
          <Button weight="quiet" aria-expanded={showsEarlier} onClick={() => setShowsEarlier(!showsEarlier)}>
            {note.earlier.length} earlier
          </Button>
        )}
      </span>
      <Failure error={change.error ?? remove.error} />
      {showsEarlier && (
        <ol className="mt-1 grid gap-2 border-l-2 border-line pl-3 text-slate">
          {note.earlier.map((one, index) => (
            <li key={index}>
              <span className="block whitespace-pre-wrap">{one.words}</span>
              <span className="text-note">
                changed by {one.by}, {one.at}
              </span>
            </li>
          ))}
        </ol>
      )}
    </li>
  );
}

interface WordsProps {
  label: string;
  start: string;
  action: string;
  error: unknown;
  isPending: boolean;
  onDone: (text: string) => void;
  onClose: () => void;
}

function Words({ label, start, action, error, isPending, onDone, onClose }: WordsProps) {
  const [text, setText] = useState(start);
  return (
    // Esc closes the box, and must not close the panel around it.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <form
      className="grid gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (!isPending) onDone(text);
      }}
      onKeyDown={(e) => {
        if (e.key !== "Escape") return;
        e.preventDefault();
        e.stopPropagation();
        onClose();
      }}
    >
      <GrowingText
        aria-label={label}
        className={`${boxLook} min-h-20`}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {findingsOf(error).get("text") ? (
        <span role="alert" className="font-semibold text-brick">
          {findingsOf(error).get("text")}
        </span>
      ) : (
        <Failure error={error} />
      )}
      <span className="flex gap-2">
        <Button weight="main" type="submit" disabled={isPending}>
          {action}
        </Button>
        <Button weight="quiet" onClick={onClose}>
          Cancel
        </Button>
      </span>
    </form>
  );
}
