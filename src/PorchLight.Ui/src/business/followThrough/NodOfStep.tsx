import { useMutation } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { KeyCap } from "../../kit/KeyCap";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";

interface Props {
  nod: Schemas["NodView"];
  /** Other steps of the same person that are skipped with it. */
  instead: Schemas["OtherNod"][];
  onDone: (done: Schemas["NodSent"]) => void;
}

/** A step that sends no message, and waits for somebody to say that it may be done. */
export function NodOfStep({ nod, instead, onDone }: Props) {
  const act = useMutation({
    mutationFn: (now: boolean) =>
      orProblem(
        api.POST("/api/nods/{runId}/{step}/send", {
          params: { path: { runId: nod.runId, step: nod.step } },
          body: { seen: null, now, instead },
        }),
      ),
    onSuccess: onDone,
  });
  return (
    <div>
      <p className="rounded-soft bg-card p-5 shadow-soft">With your nod: {nod.does}.</p>
      <Failure error={act.error} />
      {nod.goes && <p className="mt-3 font-semibold">It has your nod and is done {nod.goes}.</p>}
      <div className="mt-4 flex flex-wrap gap-2">
        {!nod.goes && (
          <Button weight="main" data-nods disabled={act.isPending} onClick={() => act.mutate(false)}>
            {nod.outsideWindow ? "Do it when the hours open" : "Do it"} <KeyCap>Ctrl Enter</KeyCap>
          </Button>
        )}
        {nod.outsideWindow && (
          <Button disabled={act.isPending} onClick={() => act.mutate(true)}>
            Do it now
          </Button>
        )}
      </div>
    </div>
  );
}
