import { useState } from "react";
import { DropdownMenu } from "radix-ui";
import { ChevronDown } from "lucide-react";
import type { Schemas } from "../../api/problem";
import { buttonLook } from "../../kit/Button";
import { KeyCap } from "../../kit/KeyCap";
import { useLetters } from "../../kit/letters";
import { menuItem, menuLook } from "../../kit/menu";
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
      <DropdownMenu.Root modal={false} open={isOpen} onOpenChange={setOpen}>
        <DropdownMenu.Trigger className={buttonLook("plain")}>
          {letter && <KeyCap>{letter}</KeyCap>} {label} <ChevronDown size={16} aria-hidden />
        </DropdownMenu.Trigger>
        <DropdownMenu.Content align="start" className={`${menuLook} max-h-96 overflow-y-auto p-1`}>
          {stages.map((stage) => (
            <DropdownMenu.Item key={stage.key} className={menuItem} onSelect={() => mover.begin(ids, stage)}>
              {stage.name}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Root>
      {mover.dialog}
    </>
  );
}
