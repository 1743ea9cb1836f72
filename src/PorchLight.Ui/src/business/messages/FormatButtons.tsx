import { Menu, MenuItem } from "../../kit/Menu";
import { useState } from "react";
import { Popover } from "radix-ui";
import type { Editor } from "@tiptap/core";
import { Bold, Image, Link2, List } from "lucide-react";
import { Button } from "../../kit/Button";
import { TextBox } from "../../kit/fields";

const look = "inline-flex min-h-8 items-center gap-1 rounded-soft px-2 text-note text-dusk hover:bg-mist";

interface Props {
  editor: Editor;
  pictures: { key: string; name: string }[];
}

/** Writes the signs by which a message is formatted, so that nobody has to know them. */
export function FormatButtons({ editor, pictures }: Props) {
  const chosen = () => editor.state.doc.textBetween(editor.state.selection.from, editor.state.selection.to, " ");
  const put = (words: string) => editor.chain().focus().insertContent(words).run();
  return (
    <div role="group" aria-label="Formatting" className="mt-1 flex flex-wrap gap-1">
      <button type="button" className={look} onClick={() => put(`**${chosen() || "bold words"}**`)}>
        <Bold size={16} aria-hidden /> Bold
      </button>
      <button
        type="button"
        className={look}
        onClick={() => editor.chain().focus().insertContentAt(editor.state.selection.$from.start(), "- ").run()}
      >
        <List size={16} aria-hidden /> List
      </button>
      <LinkButton chosen={chosen} onLink={(words, address) => put(`[${words}](${address})`)} />
      {pictures.length > 0 && (
        <Menu
          trigger={
            <button type="button" className={look}>
              <Image size={16} aria-hidden /> Picture
            </button>
          }
          className="w-80"
        >
          {pictures.map((one) => (
            <MenuItem key={one.key} onSelect={() => put(`![${one.name.replace(/[[\]\\]/g, "")}](${one.key})`)}>
              {one.name}
            </MenuItem>
          ))}
        </Menu>
      )}
    </div>
  );
}

function LinkButton(props: { chosen: () => string; onLink: (words: string, address: string) => void }) {
  const [isOpen, setOpen] = useState(false);
  const [words, setWords] = useState("");
  const [address, setAddress] = useState("https://");
  return (
    <Popover.Root
      open={isOpen}
      onOpenChange={(open) => {
        setWords(props.chosen());
        setOpen(open);
      }}
    >
      <Popover.Trigger className={look}>
        <Link2 size={16} aria-hidden /> Link
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={6} className="z-50 w-80 rounded-soft bg-card p-4 shadow-panel">
          <div className="grid gap-3">
            <TextBox label="Text to show" value={words} onChange={(e) => setWords(e.target.value)} />
            <TextBox label="Where it leads" value={address} onChange={(e) => setAddress(e.target.value)} />
            <Button
              onClick={() => {
                props.onLink(words.trim() || address.trim(), address.trim());
                setOpen(false);
              }}
            >
              Insert
            </Button>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
