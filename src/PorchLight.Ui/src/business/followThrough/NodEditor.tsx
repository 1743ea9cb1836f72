import { useMutation } from "@tanstack/react-query";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { boxLook, GrowingText } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../client";
import { Clashes } from "../edits/Clashes";
import { useAutoSave } from "../edits/useAutoSave";

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
  const edit = useAutoSave<Draft>(nod.draft, async (body) => {
    const saved = await orProblem(api.PUT("/api/nods/{runId}/{step}", { params: { path }, body }));
    return saved.draft;
  });
  const { value: draft, change } = edit;
  const send = useMutation({
    mutationFn: async (now: boolean) => {
      const seen = await edit.saveNow();
      const body = { seen, now };
      return orProblem(api.POST("/api/nods/{runId}/{step}/send", { params: { path }, body }));
    },
    onError: edit.raise,
    onSuccess: onSent,
  });
  const changePart = (part: Part) =>
    change({ ...draft, parts: draft.parts.map((old) => (old.key === part.key ? part : old)) });
  const missing = findingsOf(send.error);

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
        {draft.parts.map((part) =>
          part.kind === "gap" ? (
            <GrowingText
              key={part.key}
              aria-label={part.prompt}
              aria-invalid={missing.has(part.key) && !part.filled?.trim() ? true : undefined}
              placeholder={part.prompt}
              value={part.filled ?? ""}
              onChange={(e) => changePart({ ...part, filled: e.target.value })}
              className={`my-2 w-full rounded-soft border-2 border-dashed px-3 py-2 placeholder:text-slate placeholder:opacity-100 ${part.filled?.trim() ? "border-edge bg-card" : "border-dusk bg-glow"} aria-invalid:border-brick`}
            />
          ) : (
            <GrowingText
              key={part.key}
              aria-label="Words of the message"
              value={part.text}
              onChange={(e) => changePart({ ...part, text: e.target.value })}
              className="-mx-1 w-[calc(100%+0.5rem)] rounded-soft bg-card px-1 py-0.5 hover:bg-mist"
            />
          ),
        )}
      </div>
      <Clashes
        clashes={edit.clashes}
        nameOf={(place) => (place === "subject" ? "Subject" : "Words of the message")}
        onChoose={edit.choose}
      />
      {edit.clashes.length === 0 && <Failure error={send.error ?? edit.error} />}
      {nod.goes && (
        <p className="mt-3 font-semibold">It has your nod and goes {nod.goes}, when your sending hours begin.</p>
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
          {edit.isSaving ? "Saving …" : edit.wasSaved && !edit.isDirty ? "Saved" : ""}
        </span>
      </div>
    </div>
  );
}
