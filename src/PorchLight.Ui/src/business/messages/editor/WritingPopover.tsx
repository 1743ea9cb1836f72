import { type ReactNode } from "react";
import { Popover } from "radix-ui";

interface Props {
  trigger: ReactNode;
  isOpen: boolean;
  onOpenChange: (isOpen: boolean) => void;
  /** What Enter does in one of its boxes. */
  onEnter: () => void;
  children: ReactNode;
}

/** A small box beside what one writes. What is typed in it is not typed into the message, and its keys are not those of the message. */
export const WritingPopover = ({ trigger, isOpen, onOpenChange, onEnter, children }: Props) => (
  <Popover.Root open={isOpen} onOpenChange={onOpenChange}>
    <Popover.Trigger asChild>{trigger}</Popover.Trigger>
    <Popover.Portal>
      <Popover.Content
        align="start"
        sideOffset={6}
        collisionPadding={8}
        className="z-50 grid w-80 max-w-[calc(100vw-1rem)] gap-3 rounded-soft bg-card p-4 shadow-panel"
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key !== "Enter" || !(event.target instanceof HTMLInputElement)) return;
          event.preventDefault();
          onEnter();
        }}
      >
        {children}
      </Popover.Content>
    </Popover.Portal>
  </Popover.Root>
);
