import { useCallback, useEffect, useId, useMemo } from "react";
import { Fragment, Slice, type Node } from "@tiptap/pm/model";
import type { JSONContent } from "@tiptap/core";
import { EditorContent } from "@tiptap/react";
import type { KnownChoice } from "../words";
import { readBlocks, readParts, writeParts, type Part, type Stage } from "./messageDocument";
import { messageNodes } from "./nodes";
import { SurroundingsOf } from "./surroundings";
import { Toolbar } from "./Toolbar";
import { useDocument } from "./useDocument";

interface Props {
  label: string;
  help?: string;
  error?: string;
  parts: Part[];
  onChange: (parts: Part[]) => void;
  stage: Stage;
  /** What can be set into a template. */
  choices?: KnownChoice[];
  /** Whether it is known whenever the message goes, so that nothing has to stand for it. */
  isAlwaysKnown?: boolean;
  /** Whether gaps can be made in a template. */
  hasGaps?: boolean;
  /** Whether the gaps of a draft have to stay. */
  gapsStay?: boolean;
  pictures?: { key: string; name: string }[];
  /** What stands below it, where a template has the signature set in. */
  signature?: string;
  /** What is to be put right, by the key of its gap. */
  missing?: ReadonlyMap<string, string>;
  /** Whether one goes on writing here: in the first open gap, or where the words begin. */
  takesFocus?: boolean;
  look?: string;
}

const none: never[] = [];

/** A message as one document: lines, lists, links, pictures, known values, and gaps. */
export function MessageEditor({
  label,
  help,
  error,
  parts,
  onChange,
  stage,
  choices = none,
  isAlwaysKnown = false,
  hasGaps = false,
  gapsStay = false,
  pictures = none,
  signature,
  missing,
  takesFocus = false,
  look = "min-h-28",
}: Props) {
  const id = useId();
  const extensions = useMemo(() => messageNodes(stage, gapsStay), [stage, gapsStay]);
  const editor = useDocument({
    extensions,
    value: parts,
    onChange,
    read: useCallback((value: Part[]) => readParts(value, stage), [stage]),
    write: useCallback((doc: JSONContent) => writeParts(doc, stage), [stage]),
    isSame,
    editorProps: {
      attributes: {
        role: "textbox",
        "aria-labelledby": id,
        "aria-multiline": "true",
        class: `message px-2.5 py-1.5 outline-none ${look}`,
      },
      clipboardTextParser: (text, _, __, view) =>
        new Slice(Fragment.fromJSON(view.state.schema, readBlocks(text, stage)), 1, 1),
    },
  });
  useEffect(() => {
    if (!editor) return;
    if (!takesFocus) return void editor.commands.setTextSelection(editor.state.doc.content.size);
    // The next key is one of the message; the caret follows, once the gaps are drawn.
    editor.view.dom.focus();
    editor.commands.focus(firstOpenGap(editor.state.doc) ?? "start");
  }, [editor, takesFocus]);
  return (
    <SurroundingsOf value={{ choices, isAlwaysKnown, signature, missing }}>
      <div>
        <span id={id} className="block font-semibold">
          {label}
        </span>
        {help && <span className="block text-slate">{help}</span>}
        <div className="mt-1 rounded-soft border border-edge bg-card outline-offset-2 outline-dusk has-[.message:focus-visible]:outline-3">
          {editor && <Toolbar editor={editor} label={label} pictures={pictures} choices={choices} hasGaps={hasGaps} />}
          <EditorContent editor={editor} />
        </div>
        {error && <p className="mt-1 font-semibold text-brick">{error}</p>}
      </div>
    </SurroundingsOf>
  );
}

const isSame = (one: Part[], other: Part[]) => JSON.stringify(one.map(told)) === JSON.stringify(other.map(told));

const told = (part: Part) =>
  part.kind === "gap" ? [part.key, part.prompt, part.filled ?? ""] : [part.key, part.text, null];

/** Where the first gap that is not filled begins; undefined where there is none. */
function firstOpenGap(doc: Node): number | undefined {
  let found: number | undefined;
  doc.forEach((node, at) => {
    if (node.type.name === "gap" && node.textContent.trim() === "") found ??= at + 2;
  });
  return found;
}
