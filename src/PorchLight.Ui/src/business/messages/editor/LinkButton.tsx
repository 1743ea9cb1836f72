import { useState } from "react";
import type { Editor } from "@tiptap/core";
import { Link2 } from "lucide-react";
import { Button } from "../../../kit/Button";
import { TextBox } from "../../../kit/fields";
import { canLeadTo } from "./formattedText";
import { toolLook } from "./toolLook";
import { WritingPopover } from "./WritingPopover";

interface Props {
  editor: Editor;
  /** Whether the caret stands in a link. */
  isOn: boolean;
}

/** Lets words lead somewhere: those that are chosen, those of the link one stands in, or new ones. */
export function LinkButton({ editor, isOn }: Props) {
  const [isOpen, setOpen] = useState(false);
  const [words, setWords] = useState("");
  const [address, setAddress] = useState("");
  const [wrong, setWrong] = useState<string>();
  const open = () => {
    if (isOn) editor.commands.extendMarkRange("link");
    const { from, to } = editor.state.selection;
    setWords(editor.state.doc.textBetween(from, to, " "));
    setAddress((editor.getAttributes("link").href as string | undefined) ?? "");
    setWrong(undefined);
  };
  const put = () => {
    const href = whole(address.trim());
    if (!canLeadTo(href)) return setWrong("Write the whole address, like https://example.com.");
    const { from, to } = editor.state.selection;
    const isSaid = words.trim() !== "" && words === editor.state.doc.textBetween(from, to, " ");
    // What stands there keeps what is set into it, unless other words were written for it.
    if (isSaid) editor.chain().focus().setLink({ href }).setTextSelection(to).unsetMark("link").run();
    else {
      const said = { type: "text", text: words.trim() || address.trim(), marks: [{ type: "link", attrs: { href } }] };
      editor.chain().focus().insertContentAt({ from, to }, said).unsetMark("link").run();
    }
    setOpen(false);
  };
  return (
    <WritingPopover
      isOpen={isOpen}
      onOpenChange={(next) => {
        if (next) open();
        setOpen(next);
      }}
      onEnter={put}
      trigger={
        <button type="button" className={toolLook} aria-pressed={isOn}>
          <Link2 size={16} aria-hidden /> Link
        </button>
      }
    >
      <TextBox label="Text to show" value={words} onChange={(e) => setWords(e.target.value)} />
      <TextBox
        label="Where it leads"
        placeholder="https://"
        value={address}
        error={wrong}
        onChange={(e) => setAddress(e.target.value)}
      />
      <p className="flex gap-2">
        <Button onClick={put}>{isOn ? "Change it" : "Insert"}</Button>
        {isOn && (
          <Button
            weight="quiet"
            onClick={() => {
              editor.chain().focus().unsetLink().run();
              setOpen(false);
            }}
          >
            Remove the link
          </Button>
        )}
      </p>
    </WritingPopover>
  );
}

/** An address as people type it, with what they leave out. */
const whole = (address: string) =>
  /^[^\s/:@{]+@[^\s/:@]+\.[^\s/:@]+$/.test(address)
    ? `mailto:${address}`
    : /^[^\s/:@{]+\.[^\s/:@]+/.test(address)
      ? `https://${address}`
      : address;
