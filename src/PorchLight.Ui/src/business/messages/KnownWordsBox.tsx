import { Menu, MenuItem } from "../../kit/Menu";
import { useEffect, useId, useRef } from "react";
import { Node } from "@tiptap/core";
import { Document } from "@tiptap/extension-document";
import { Paragraph } from "@tiptap/extension-paragraph";
import { Text } from "@tiptap/extension-text";
import type { JSONContent } from "@tiptap/core";
import { EditorContent, useEditor } from "@tiptap/react";
import { Plus } from "lucide-react";
import { boxLook, controlLook } from "../../kit/fields";
import { FormatButtons } from "./FormatButtons";
import { KnownWords, type KnownPlace } from "./words";

/** Something known that can be set into words. */
export interface KnownChoice {
  name: string;
  words: string;
}

const Known = Node.create({
  name: "known",
  group: "inline",
  inline: true,
  atom: true,
  addAttributes: () => ({ name: { default: "" }, fallback: { default: "" }, words: { default: "" } }),
  parseHTML: () => [{ tag: "span[data-known]" }],
  renderHTML: ({ node }) => [
    "span",
    { "data-known": node.attrs.name as string, class: "rounded-soft bg-glow border border-edge px-1.5" },
    node.attrs.words as string,
  ],
});

const OneLine = Document.extend({ content: "paragraph" });
const extensions = { one: [OneLine, Paragraph, Text, Known], several: [Document, Paragraph, Text, Known] };

function read(words: string, choices: KnownChoice[]): JSONContent {
  const nameOf = (name: string) => choices.find((one) => one.name === name)?.words ?? "a deleted question";
  return {
    type: "doc",
    content: words.split("\n").map((line) => ({
      type: "paragraph",
      content: KnownWords.parts(line).map((part) =>
        typeof part === "string"
          ? { type: "text", text: part }
          : { type: "known", attrs: { ...part, words: nameOf(part.name) } },
      ),
    })),
  };
}

const write = (doc: JSONContent): string =>
  (doc.content ?? [])
    .map((line) =>
      (line.content ?? [])
        .map((part) => (part.type === "known" ? KnownWords.write(part.attrs as KnownPlace) : (part.text ?? "")))
        .join(""),
    )
    .join("\n");

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
  /** Pictures that can stand in it; given only where the words may be formatted. */
  pictures?: { key: string; name: string }[];
}

/** Words in which earlier answers and known values stand as marked places. */
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
  pictures,
}: Props) {
  const id = useId();
  const inserted = useRef(false);
  const editor = useEditor({
    extensions: extensions[lines],
    content: read(value, choices),
    editorProps: {
      attributes: {
        role: "textbox",
        "aria-labelledby": id,
        "aria-multiline": String(lines === "several"),
        class: `${boxLook} ${look} min-h-9`,
      },
      handleKeyDown: (_, event) => lines === "one" && event.key === "Enter",
    },
    onUpdate: ({ editor: typed }) => onChange(write(typed.getJSON())),
  });
  // What changed elsewhere, by undo or in another window, is shown; what is typed here stands there already.
  useEffect(() => {
    if (editor && write(editor.getJSON()) !== value)
      editor.commands.setContent(read(value, choices), { emitUpdate: false });
  }, [editor, value, choices]);
  const places = KnownWords.parts(value).filter((part) => typeof part !== "string");
  return (
    <div>
      <span className="flex items-end justify-between gap-2">
        <span id={id} className="font-semibold">
          {label}
        </span>
        {choices.length > 0 && (
          <Menu
            align="end"
            trigger={
              <button type="button" className="inline-flex items-center gap-1 text-note text-dusk hover:underline">
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
                  editor
                    ?.chain()
                    .insertContent({ type: "known", attrs: { name: one.name, fallback: "", words: one.words } })
                    .run();
                }}
              >
                {one.words}
              </MenuItem>
            ))}
          </Menu>
        )}
      </span>
      {help && <span className="block text-slate">{help}</span>}
      {pictures && editor && <FormatButtons editor={editor} pictures={pictures} />}
      <div className="mt-1">
        <EditorContent editor={editor} />
      </div>
      {error && <p className="mt-1 font-semibold text-brick">{error}</p>}
      {(isAlwaysKnown ? [] : places).map((one, index) => (
        <label key={index} className="mt-1.5 flex flex-wrap items-center gap-2 text-note text-slate">
          <span>While “{choices.find(({ name }) => name === one.name)?.words ?? "it"}” is not known, it says</span>
          <input
            className={`${controlLook} w-40`}
            placeholder="nothing"
            value={one.fallback}
            onChange={(e) => onChange(withFallback(value, index, e.target.value))}
          />
        </label>
      ))}
    </div>
  );
}

function withFallback(words: string, place: number, fallback: string): string {
  let number = -1;
  return KnownWords.parts(words)
    .map((part) => {
      if (typeof part === "string") return part;
      number++;
      return KnownWords.write(number === place ? { ...part, fallback: fallback.replace(/[{}|]/g, "") } : part);
    })
    .join("");
}
