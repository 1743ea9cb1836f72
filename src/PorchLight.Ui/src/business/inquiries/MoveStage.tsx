import { Menu, MenuItem } from "../../kit/Menu";
import { useState } from "react";
import type { Schemas } from "../../api/problem";
import { KeyCap } from "../../kit/KeyCap";
import { useLetters } from "../../kit/letters";
import { useStageMover } from "./useStageMover";

interface Props {
  /** The inquiries whose projects move. */
  ids: string[];
  label: string;
  stages: Schemas["Stage"][];
  lostReasons: string[];
  /** The key that opens it; none where several could be meant. */
  letter?: string;
  onMoved?: () => void;
}

/** A menu that moves what inquiries are about to another stage. */
export function MoveStage({ ids, label, stages, lostReasons, letter, onMoved }: Props) {
  const mover = useStageMover(lostReasons, onMoved);
  const [isOpen, setOpen] = useState(false);
  useLetters(letter ? [{ letter, words: "Move it to a stage", run: () => setOpen(true) }] : []);
  return (
    <>
      <Menu
        isOpen={isOpen}
        onOpenChange={setOpen}
        label={
          <>
            {letter && <KeyCap>{letter}</KeyCap>} {label}
          </>
        }
      >
        {stages.map((stage) => (
          <MenuItem key={stage.key} onSelect={() => mover.begin(ids, stage)}>
            {stage.name}
          </MenuItem>
        ))}
      </Menu>
      {mover.dialog}
    </>
  );
}
