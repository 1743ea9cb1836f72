import { DayBox } from "../../kit/DayBox";
import { Dialog, DialogClose } from "../../kit/Dialog";
import { useState, type ReactNode } from "react";
import { useMutation } from "@tanstack/react-query";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { SelectBox } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";

type Stage = Schemas["Stage"];

interface Move {
  ids: string[];
  stage: Stage;
  /** The key of the stage they were seen in; null where that was not looked at. */
  from: string | null;
}

/**
 * Moves what inquiries are about from stage to stage: a parked one takes a day, a lost one a reason. It can be taken back.
 * @param lostReasons The business's reasons.
 * @param onMoved Told when it is done.
 */
export function useStageMover(lostReasons: string[], onMoved?: () => void) {
  const say = useNotice();
  const [asking, setAsking] = useState<Move | null>(null);
  const [until, setUntil] = useState("");
  const [reason, setReason] = useState("");
  const [answered, setAnswered] = useState<boolean | null>(null);
  const put = (moves: Schemas["StageMove"][]) => orProblem(api.PUT("/api/inquiries/stages", { body: { moves } }));
  const move = useMutation({
    mutationFn: ({ ids, stage, from }: Move) =>
      put(
        ids.map((inquiry) => ({
          inquiry,
          from,
          stage: stage.key,
          until: stage.kind === "parked" ? until || null : null,
          reason: stage.kind === "lost" ? reason || null : null,
          answered: stage.kind === "parked" ? answered : null,
        })),
      ),
    onSuccess: ({ moves }, { ids, stage }) => {
      setAsking(null);
      say({
        words: ids.length === 1 ? `Moved to “${stage.name}”.` : `${ids.length} moved to “${stage.name}”.`,
        undo: () => put(moves),
      });
      onMoved?.();
    },
  });
  const begin = (ids: string[], stage: Stage, from: string | null = null) => {
    move.reset();
    setAnswered(null);
    if (stage.kind === "parked" || stage.kind === "lost") setAsking({ ids, stage, from });
    else move.mutate({ ids, stage, from });
  };
  const wrongDay = findingsOf(move.error).get("until");
  const promised = findingsOf(move.error).get("answered");
  const dialog: ReactNode = (
    <>
      {!asking && <Failure error={move.error} />}
      <Dialog
        open={asking !== null}
        onOpenChange={(open) => !open && setAsking(null)}
        width="narrow"
        title={asking?.stage.name}
      >
        <form
          className="grid gap-4"
          onSubmit={(e) => {
            e.preventDefault();
            if (asking && !move.isPending) move.mutate(asking);
          }}
        >
          {asking?.stage.kind === "parked" ? (
            <DayBox
              label="It comes back on"
              help="Leave empty to keep it there until you move it."
              value={until || null}
              error={wrongDay}
              onChange={(day) => setUntil(day ?? "")}
            />
          ) : (
            <SelectBox label="Why it was lost" value={reason} onChange={(e) => setReason(e.target.value)}>
              <option value="">not said</option>
              {lostReasons.map((one) => (
                <option key={one} value={one}>
                  {one}
                </option>
              ))}
            </SelectBox>
          )}
          {(promised || answered !== null) && (
            <fieldset className="grid gap-2">
              <legend className="mb-1 font-semibold">{promised ?? "Do they know you will come back to them?"}</legend>
              <Choice label="Yes, they know" value={answered === true} onChange={() => setAnswered(true)} />
              <Choice label="Not yet" value={answered === false} onChange={() => setAnswered(false)} />
            </fieldset>
          )}
          {!wrongDay && !promised && <Failure error={move.error} />}
          <div className="flex gap-2">
            <Button weight="main" type="submit" disabled={move.isPending}>
              {asking && asking.ids.length > 1 ? `Move all ${asking.ids.length}` : "Move it"}
            </Button>
            <DialogClose asChild>
              <Button>Leave it</Button>
            </DialogClose>
          </div>
        </form>
      </Dialog>
    </>
  );
  return { begin, dialog };
}

function Choice({ label, value, onChange }: { label: string; value: boolean; onChange: () => void }) {
  return (
    <label className="flex items-center gap-2">
      <input type="radio" name="answered" className="size-[1.15rem] accent-dusk" checked={value} onChange={onChange} />
      {label}
    </label>
  );
}
