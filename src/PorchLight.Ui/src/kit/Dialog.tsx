import type { ComponentProps, ReactElement, ReactNode } from "react";
import { Dialog as Radix } from "radix-ui";

const widths = { narrow: "w-96", usual: "w-[34rem]", wide: "w-2xl" };

type Content = ComponentProps<typeof Radix.Content>;

interface Props extends Pick<Content, "onOpenAutoFocus" | "onEscapeKeyDown" | "onPointerDownOutside"> {
  title: ReactNode;
  /** Whether the title is only for those who hear the page. */
  isTitleHidden?: boolean;
  /** What it is about, in a sentence below the title. */
  about?: ReactNode;
  width?: keyof typeof widths;
  /** The button that opens it; none where something else does. */
  trigger?: ReactElement;
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
  children: ReactNode;
}

/** A window over the page that asks for something before the page goes on: always in one place, however much it holds. */
export function Dialog({ title, isTitleHidden, about, width = "usual", trigger, open, onOpenChange, ...rest }: Props) {
  const { children, ...content } = rest;
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      {trigger && <Radix.Trigger asChild>{trigger}</Radix.Trigger>}
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/60" />
        <Radix.Content
          {...(about ? {} : { "aria-describedby": undefined })}
          className={`fixed top-[10vh] left-1/2 z-50 max-h-[84dvh] max-w-[94vw] -translate-x-1/2 overflow-y-auto rounded-soft bg-card p-6 shadow-panel ${widths[width]}`}
          {...content}
        >
          <Radix.Title className={isTitleHidden ? "sr-only" : `text-lead ${about ? "mb-1" : "mb-3"}`}>
            {title}
          </Radix.Title>
          {about && <Radix.Description className="mb-4">{about}</Radix.Description>}
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

/** Closes the window it stands in. */
export const DialogClose = Radix.Close;
