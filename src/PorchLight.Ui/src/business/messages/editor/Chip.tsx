import { useState, type ReactNode } from "react";
import { Popover } from "radix-ui";
import { Button } from "../../../kit/Button";

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
    <Popover.Root open={isOpen} onOpenChange={setOpen}>
      <Popover.Trigger aria-label={label} className={`${look} ${isChosen ? "outline-2 outline-dusk" : ""}`}>
        {shown}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          collisionPadding={8}
          className="z-50 grid w-80 max-w-[calc(100vw-1rem)] gap-3 rounded-soft bg-card p-4 shadow-panel"
          // What is typed here is not typed into the message, and its keys are not those of the message.
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key !== "Enter" || !(event.target instanceof HTMLInputElement)) return;
            event.preventDefault();
            setOpen(false);
          }}
        >
          {children}
          <p className="flex gap-2">
            <Popover.Close asChild>
              <Button>Close</Button>
            </Popover.Close>
            <Button weight="quiet" onClick={onRemove}>
              Remove
            </Button>
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
