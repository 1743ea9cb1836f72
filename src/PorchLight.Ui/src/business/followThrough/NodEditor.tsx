import { useCallback, useEffect, useRef, useState } from "react";
import { useMutation } from "@tanstack/react-query";
import { orProblem, Problem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { boxLook, GrowingText } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../client";

const savePauseMs = 600;

type Draft = Schemas["MessageDraft"];
type Part = Draft["parts"][number];

interface Props {
  nod: Schemas["NodView"];
  onSent: () => void;
  onSkip: () => void;
  skipping: boolean;
}

/** The message as it would go out. Every word can be changed; the dashed boxes must be filled first. */
export function NodEditor({ nod, onSent, onSkip, skipping }: Props) {
  const path = { runId: nod.runId, step: nod.step };
  const [draft, setDraft] = useState<Draft>(nod.draft);
  const unsaved = useRef<Draft | null>(null);
  const save = useMutation({
    mutationFn: (next: Draft) =>
      orProblem(api.PUT("/api/nods/{runId}/{step}", { params: { path }, body: { draft: next } })),
  });
  const send = useMutation({
    mutationFn: (now: boolean) =>
      orProblem(api.POST("/api/nods/{runId}/{step}/send", { params: { path }, body: { draft, now } })),
    onMutate: () => {
      unsaved.current = null;
    },
    // What was refused is not stored either, so it still has to be saved.
    onError: () => {
      unsaved.current ??= draft;
    },
    onSuccess: onSent,
  });
  const { mutate: keep } = save;

  const saveNow = useCallback(() => {
    if (unsaved.current) keep(unsaved.current);
    unsaved.current = null;
  }, [keep]);
  useEffect(() => {
    const timer = setTimeout(saveNow, savePauseMs);
    return () => clearTimeout(timer);
  }, [draft, saveNow]);
  // Whoever closes the panel at once after the last keystroke loses nothing either.
  useEffect(() => saveNow, [saveNow]);

  const change = (next: Draft) => {
    unsaved.current = next;
    setDraft(next);
  };
  const changePart = (index: number, part: Part) =>
    change({ ...draft, parts: draft.parts.map((old, at) => (at === index ? part : old)) });
  const missing = new Set(send.error instanceof Problem ? send.error.findings.map((finding) => finding.place) : []);

  return (
    <div>
      <div className="rounded-soft border border-edge p-5">
        <p className="mb-3 text-slate">To {nod.to}</p>
        <label className="mb-4 block">
          <span className="mb-1 block font-semibold">Subject</span>
          <input
            className={boxLook}
            value={draft.subject}
            onChange={(e) => change({ ...draft, subject: e.target.value })}
          />
        </label>
        {draft.parts.map((part, index) =>
          part.kind === "gap" ? (
            <GrowingText
              key={index}
              aria-label={part.prompt}
              aria-invalid={missing.has(part.key) && !part.filled?.trim() ? true : undefined}
              placeholder={part.prompt}
              value={part.filled ?? ""}
              onChange={(e) => changePart(index, { ...part, filled: e.target.value })}
              className={`my-2 w-full rounded-soft border-2 border-dashed px-3 py-2 placeholder:text-slate placeholder:opacity-100 ${part.filled?.trim() ? "border-edge bg-card" : "border-dusk bg-glow"} aria-invalid:border-brick`}
            />
          ) : (
            <GrowingText
              key={index}
              aria-label="Words of the message"
              value={part.text}
              onChange={(e) => changePart(index, { ...part, text: e.target.value })}
              className="-mx-1 w-[calc(100%+0.5rem)] rounded-soft bg-card px-1 py-0.5 hover:bg-mist"
            />
          ),
        )}
      </div>
      <Failure error={send.error ?? save.error} />
      {nod.goes && (
        <p className="mt-3 font-semibold">It has your nod and goes {nod.goes}, when the sending window opens.</p>
      )}
      {!nod.goes && nod.outsideWindow && (
        <p className="mt-3 text-slate">
          It is outside sending hours: with your nod it waits until they open, unless you send it now.
        </p>
      )}
      <div className="mt-4 flex flex-wrap gap-2">
        {!nod.goes && (
          <Button weight="main" disabled={send.isPending} onClick={() => send.mutate(false)}>
            {nod.outsideWindow ? "Send when the hours open" : "Send"}
          </Button>
        )}
        {nod.outsideWindow && (
          <Button disabled={send.isPending} onClick={() => send.mutate(true)}>
            Send now
          </Button>
        )}
        <Button weight="quiet" disabled={skipping} onClick={onSkip}>
          Skip this one
        </Button>
        <span role="status" className="self-center text-slate">
          {save.isPending ? "Saving …" : save.isSuccess ? "Saved" : ""}
        </span>
      </div>
    </div>
  );
}
