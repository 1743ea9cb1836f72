import type { ComponentProps, ReactElement, ReactNode } from "react";
import { DropdownMenu } from "radix-ui";
import { ChevronDown, MoreHorizontal } from "lucide-react";
import { buttonLook } from "./Button";
import { menuItem, menuLook } from "./menu";

type ContentProps = ComponentProps<typeof DropdownMenu.Content>;

interface Props extends Pick<ContentProps, "align" | "onCloseAutoFocus"> {
  /** What its button says. */
  label?: ReactNode;
  /** What a button of three dots says to who cannot see it: "More for A wall to paint". */
  more?: string;
  /** A button of another look. */
  trigger?: ReactElement;
  /** How wide it is, where its items do not say it. */
  className?: string;
  isOpen?: boolean;
  onOpenChange?: (isOpen: boolean) => void;
  children: ReactNode;
}

/** A button that opens a menu. */
export function Menu({
  label,
  more,
  trigger,
  align = more ? "end" : "start",
  className = "max-w-80",
  isOpen,
  ...rest
}: Props) {
  const { onOpenChange, children, ...content } = rest;
  return (
    <DropdownMenu.Root modal={false} open={isOpen} onOpenChange={onOpenChange}>
      <DropdownMenu.Trigger asChild>{trigger ?? (more ? moreButton(more) : plainButton(label))}</DropdownMenu.Trigger>
      <DropdownMenu.Content
        align={align}
        sideOffset={4}
        collisionPadding={8}
        className={`${menuLook} max-h-96 overflow-y-auto p-1 ${className}`}
        {...content}
      >
        {children}
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  );
}

const moreButton = (words: string) => (
  <button type="button" aria-label={words} className="shrink-0 rounded-soft p-1.5 text-slate hover:text-ink">
    <MoreHorizontal size={18} aria-hidden />
  </button>
);

const plainButton = (label: ReactNode) => (
  <button type="button" className={`${buttonLook("plain")} shrink-0`}>
    {label} <ChevronDown size={16} aria-hidden />
  </button>
);

type ItemProps = Pick<
  ComponentProps<typeof DropdownMenu.Item>,
  "asChild" | "onSelect" | "disabled" | "className" | "children"
> & {
  /** The key that does the same. */
  keys?: ReactNode;
};

/** Something a menu offers. */
export const MenuItem = ({ keys, className = "", children, ...rest }: ItemProps) => (
  <DropdownMenu.Item
    className={`${menuItem} data-disabled:text-slate ${keys ? "justify-between gap-6" : ""} ${className}`}
    {...rest}
  >
    {keys ? (
      <>
        {children} {keys}
      </>
    ) : (
      children
    )}
  </DropdownMenu.Item>
);

/** A menu within a menu. */
export const SubMenu = ({ label, children }: { label: string; children: ReactNode }) => (
  <DropdownMenu.Sub>
    <DropdownMenu.SubTrigger className={menuItem}>{label}</DropdownMenu.SubTrigger>
    <DropdownMenu.SubContent className={`${menuLook} max-h-96 overflow-y-auto p-1`}>{children}</DropdownMenu.SubContent>
  </DropdownMenu.Sub>
);

/** What a menu says above what it offers. */
export const MenuWords = ({ children }: { children: ReactNode }) => (
  <DropdownMenu.Label className="px-3 py-2 text-slate">{children}</DropdownMenu.Label>
);

/** A line between two parts of a menu. */
export const MenuLine = () => <DropdownMenu.Separator className="my-1 h-px bg-line" />;

interface CheckItemProps<T> {
  value: T;
  chosen: T[];
  onChange: (chosen: T[]) => void;
  children: ReactNode;
}

/** One of several things that can be chosen in a menu; it stays open meanwhile. */
export function CheckItem<T>({ value, chosen, onChange, children }: CheckItemProps<T>) {
  const on = chosen.includes(value);
  return (
    <DropdownMenu.CheckboxItem
      className={menuItem}
      checked={on}
      onSelect={(e) => e.preventDefault()}
      onCheckedChange={(now) => onChange(now ? [...chosen, value] : chosen.filter((one) => one !== value))}
    >
      <span aria-hidden className="mr-2 inline-block w-4">
        {on ? "✓" : ""}
      </span>{" "}
      {children}
    </DropdownMenu.CheckboxItem>
  );
}
