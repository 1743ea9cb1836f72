import { useState, type ReactNode } from "react";
import { Button } from "../../../kit/Button";
import { WritingPopover } from "./WritingPopover";

interface Props {
  /** What it is, to who cannot see it. */
  label: string;
  look: string;
  isChosen: boolean;
  shown: ReactNode;
  /** What can be said about it. */
  children: ReactNode;
  onRemove: () => void;
}

/** Something that stands in a line like a word, and opens to be changed. */
export function Chip({ label, look, isChosen, shown, children, onRemove }: Props) {
  const [isOpen, setOpen] = useState(false);
  return (
    <WritingPopover
      isOpen={isOpen}
      onOpenChange={setOpen}
      onEnter={() => setOpen(false)}
      trigger={
        <button type="button" aria-label={label} className={`${look} ${isChosen ? "outline-2 outline-dusk" : ""}`}>
          {shown}
        </button>
      }
    >
      {children}
      <p className="flex gap-2">
        <Button onClick={() => setOpen(false)}>Close</Button>
        <Button weight="quiet" onClick={onRemove}>
          Remove
        </Button>
      </p>
    </WritingPopover>
  );
}
