import type { ReactNode } from "react";
import { DropdownMenu } from "radix-ui";
import { ChevronDown } from "lucide-react";
import { buttonLook } from "./Button";
import { menuItem, menuLook } from "./menu";

/** A button that opens a menu; it stays open while one chooses several things. */
export function Menu({ label, children }: { label: string; children: ReactNode }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className={buttonLook("plain")}>
        {label} <ChevronDown size={16} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Content align="start" className={`${menuLook} max-h-96 overflow-y-auto p-1`}>
        {children}
      </DropdownMenu.Content>
    </DropdownMenu.Root>
  );
}

interface CheckItemProps<T> {
  value: T;
  chosen: T[];
  onChange: (chosen: T[]) => void;
  children: ReactNode;
}

/** One of several things that can be chosen in a menu. */
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
