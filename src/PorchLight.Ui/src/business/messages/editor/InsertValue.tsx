import { useRef } from "react";
import type { Editor } from "@tiptap/core";
import { Plus } from "lucide-react";
import { Menu, MenuItem } from "../../../kit/Menu";
import type { KnownChoice } from "../words";

interface Props {
  editor: Editor | null;
  choices: KnownChoice[];
  /** The words it is set into, by their label: several stand on a page. */
  into: string;
  /** How its button looks among others. */
  look?: string;
}

/** Sets a known value into words, where the caret is. */
export function InsertValue({
  editor,
  choices,
  into,
  look = "inline-flex items-center gap-1 text-note text-dusk hover:underline",
}: Props) {
  const inserted = useRef(false);
  if (choices.length === 0) return null;
  return (
    <Menu
      align="end"
      trigger={
        <button type="button" aria-label={`Insert a value: ${into}`} className={look}>
          <Plus size={16} aria-hidden /> Insert a value
        </button>
      }
      // One goes on writing behind what was inserted.
      onCloseAutoFocus={(event) => {
        if (!inserted.current) return;
        event.preventDefault();
        inserted.current = false;
        editor?.commands.focus();
      }}
    >
      {choices.map((one) => (
        <MenuItem
          key={one.name}
          onSelect={() => {
            inserted.current = true;
            editor?.commands.insertContent({ type: "known", attrs: { name: one.name, fallback: "" } });
          }}
        >
          {one.words}
        </MenuItem>
      ))}
    </Menu>
  );
}
