import { useState } from "react";
import { DropdownMenu, Dialog } from "radix-ui";
import { ChevronDown } from "lucide-react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { SelectBox, TextBox } from "../../kit/fields";
import { KeyCap } from "../../kit/KeyCap";
import { useLetters } from "../../kit/letters";
import { menuItem, menuLook } from "../../kit/menu";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../client";

type Stage = Schemas["Stage"];

interface Props {
  /** The inquiries whose projects move. */
  ids: string[];
  label: string;
  stages: Stage[];
  lostReasons: string[];
  /** The key that opens it; none where several could be meant. */
  letter?: string;
  onMoved?: () => void;
}

/** Moves what inquiries are about to another stage: a parked one takes a day, a lost one a reason. It can be taken back. */
export function MoveStage({ ids, label, stages, lostReasons, letter, onMoved }: Props) {
  const queries = useQueryClient();
  const say = useNotice();
  const [asking, setAsking] = useState<Stage | null>(null);
  const [isOpen, setOpen] = useState(false);
  useLetters(letter ? [{ letter, words: "Move it to a stage", run: () => setOpen(true) }] : []);
  const [until, setUntil] = useState("");
  const [reason, setReason] = useState("");
  const put = (moves: Schemas["StageMove"][]) => orProblem(api.PUT("/api/inquiries/stages", { body: { moves } }));
  const move = useMutation({
    mutationFn: (stage: Stage) =>
      put(
        ids.map((inquiry) => ({
          inquiry,
          stage: stage.key,
          until: stage.kind === "parked" ? until || null : null,
          reason: stage.kind === "lost" ? reason || null : null,
        })),
      ),
    onSuccess: ({ moves }, stage) => {
      setAsking(null);
      void queries.invalidateQueries();
      say({
        words: ids.length === 1 ? `It stands in “${stage.name}” now.` : `${ids.length} stand in “${stage.name}” now.`,
        undo: () => put(moves).then(() => queries.invalidateQueries()),
      });
      onMoved?.();
    },
  });
  const choose = (stage: Stage) => {
    move.reset();
    if (stage.kind === "parked" || stage.kind === "lost") setAsking(stage);
    else move.mutate(stage);
  };
  return (
    <>
      <DropdownMenu.Root modal={false} open={isOpen} onOpenChange={setOpen}>
        <DropdownMenu.Trigger className={buttonLook("plain")}>
          {letter && <KeyCap>{letter}</KeyCap>} {label} <ChevronDown size={16} aria-hidden />
        </DropdownMenu.Trigger>
        <DropdownMenu.Content align="start" className={`${menuLook} max-h-96 overflow-y-auto p-1`}>
          {stages.map((stage) => (
            <DropdownMenu.Item key={stage.key} className={menuItem} onSelect={() => choose(stage)}>
              {stage.name}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Root>
      {!asking && <Failure error={move.error} />}
      <Dialog.Root open={asking !== null} onOpenChange={(open) => !open && setAsking(null)}>
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/60" />
          <Dialog.Content
            aria-describedby={undefined}
            className="fixed top-[20vh] left-1/2 z-50 w-96 max-w-[94vw] -translate-x-1/2 rounded-soft bg-card p-7 shadow-panel"
          >
            <Dialog.Title className="mb-3 text-xl">{asking?.name}</Dialog.Title>
            <form
              className="grid gap-4"
              onSubmit={(e) => {
                e.preventDefault();
                if (asking && !move.isPending) move.mutate(asking);
              }}
            >
              {asking?.kind === "parked" ? (
                <TextBox
                  label="It comes back on"
                  help="Leave it empty and it stays there until you move it."
                  type="date"
                  value={until}
                  error={findingsOf(move.error).get("until")}
                  onChange={(e) => setUntil(e.target.value)}
                />
              ) : (
                <SelectBox label="Why it will not come" value={reason} onChange={(e) => setReason(e.target.value)}>
                  <option value="">not said</option>
                  {lostReasons.map((one) => (
                    <option key={one} value={one}>
                      {one}
                    </option>
                  ))}
                </SelectBox>
              )}
              {!findingsOf(move.error).has("until") && <Failure error={move.error} />}
              <div className="flex gap-2">
                <Button weight="main" type="submit" disabled={move.isPending}>
                  Move {ids.length === 1 ? "it" : `all ${ids.length}`}
                </Button>
                <Dialog.Close asChild>
                  <Button>Leave it</Button>
                </Dialog.Close>
              </div>
            </form>
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </>
  );
}
