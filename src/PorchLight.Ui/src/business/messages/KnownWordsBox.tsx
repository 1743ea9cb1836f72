import { useCallback, useId } from "react";
import type { JSONContent } from "@tiptap/core";
import { EditorContent } from "@tiptap/react";
import { boxLook } from "../../kit/fields";
import { InsertValue } from "./editor/InsertValue";
import { wordNodes } from "./editor/nodes";
import { SurroundingsOf } from "./editor/surroundings";
import { useDocument } from "./editor/useDocument";
import { KnownWords, type KnownChoice, type Placeholder } from "./words";

const read = (words: string): JSONContent => ({
  type: "doc",
  content: words.split("\n").map((line) => ({
    type: "paragraph",
    content: KnownWords.parts(line).map((part) =>
      typeof part === "string" ? { type: "text", text: part } : { type: "known", attrs: { ...part } },
    ),
  })),
});

const write = (doc: JSONContent): string =>
  (doc.content ?? [])
    .map((line) =>
      (line.content ?? [])
        .map((part) => (part.type === "known" ? KnownWords.write(part.attrs as Placeholder) : (part.text ?? "")))
        .join(""),
    )
    .join("\n");

const isSame = (one: string, other: string) => one === other;

interface Props {
  label: string;
  help?: string;
  value: string;
  onChange: (value: string) => void;
  /** What can be set in. */
  choices: KnownChoice[];
  lines?: "one" | "several";
  look?: string;
  error?: string;
  /** Whether all that can be set in is known whenever the words are used, so that nothing has to stand for it. */
  isAlwaysKnown?: boolean;
}

/** Words that are not formatted, in which earlier answers and known values stand as marked places. */
export function KnownWordsBox({
  label,
  help,
  value,
  onChange,
  choices,
  lines = "one",
  look = "",
  error,
  isAlwaysKnown = false,
}: Props) {
  const id = useId();
  const editor = useDocument({
    extensions: wordNodes[lines],
    value,
    onChange,
    read,
    write,
    isSame,
    editorProps: {
      attributes: {
        role: "textbox",
        "aria-labelledby": id,
        "aria-multiline": String(lines === "several"),
        class: `${boxLook} ${look} min-h-9`,
      },
      handleKeyDown: useCallback(
        (_: unknown, event: KeyboardEvent) => lines === "one" && event.key === "Enter",
        [lines],
      ),
    },
  });
  return (
    <SurroundingsOf value={{ choices, isAlwaysKnown }}>
      <div>
        <span className="flex items-end justify-between gap-2">
          <span id={id} className="font-semibold">
            {label}
          </span>
          <InsertValue editor={editor} choices={choices} into={label} />
        </span>
        {help && <span className="block text-slate">{help}</span>}
        <div className="mt-1">
          <EditorContent editor={editor} />
        </div>
        {error && <p className="mt-1 font-semibold text-brick">{error}</p>}
      </div>
    </SurroundingsOf>
  );
}
