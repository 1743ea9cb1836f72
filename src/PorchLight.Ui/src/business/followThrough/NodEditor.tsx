import { useMutation } from "@tanstack/react-query";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { KeyCap } from "../../kit/KeyCap";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { Clashes } from "../saving/Clashes";
import { DraftEditor } from "../messages/DraftEditor";
import { useAutoSave } from "../saving/useAutoSave";

type Draft = Schemas["MessageDraft"];

interface Props {
  nod: Schemas["NodView"];
  draft: Draft;
  /** Other steps of the same person that are skipped with it. */
  instead: Schemas["OtherNod"][];
  onSent: (sent: Schemas["NodSent"]) => void;
}

/** The message as it would go out. Every word can be changed; the dashed boxes must be filled first. */
export function NodEditor({ nod, draft: stored, instead, onSent }: Props) {
  const path = { runId: nod.runId, step: nod.step };
  const edit = useAutoSave<Draft>(`nod:${nod.runId}:${nod.step}`, stored, async (body) => {
    const saved = await orProblem(api.PUT("/api/nods/{runId}/{step}", { params: { path }, body }));
    return saved.draft;
  });
  const { value: draft, change } = edit;
  const send = useMutation({
    mutationFn: async (now: boolean) => {
      const seen = await edit.saveNow();
      const body = { seen, now, instead };
      return orProblem(api.POST("/api/nods/{runId}/{step}/send", { params: { path }, body }));
    },
    onError: edit.raise,
    onSuccess: onSent,
  });
  return (
    <div>
      {nod.notPermitted && <p className="mb-4 rounded-soft bg-glow p-3 font-semibold">{nod.notPermitted}</p>}
      <DraftEditor to={nod.to} draft={draft} onChange={change} missing={findingsOf(send.error)} />
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
          Outside sending hours. Approve it and it goes out when they begin, or send it now.
        </p>
      )}
      <div className="mt-4 flex flex-wrap gap-2">
        {!nod.goes && (
          <Button weight="main" data-nods disabled={send.isPending} onClick={() => send.mutate(false)}>
            {nod.outsideWindow ? "Send when the hours open" : "Send"} <KeyCap>Ctrl Enter</KeyCap>
          </Button>
        )}
        {nod.outsideWindow && (
          <Button disabled={send.isPending} onClick={() => send.mutate(true)}>
            Send now
          </Button>
        )}
        <span role="status" className="self-center text-slate">
          {edit.isSaving ? "Saving …" : edit.wasSaved && !edit.isDirty ? "Saved" : ""}
        </span>
      </div>
    </div>
  );
}
