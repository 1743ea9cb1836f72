import { useEffect, useRef } from "react";
import type { Extensions, JSONContent } from "@tiptap/core";
import { useEditor, type UseEditorOptions } from "@tiptap/react";

interface Options<T> extends Pick<UseEditorOptions, "editorProps"> {
  extensions: Extensions;
  value: T;
  onChange: (value: T) => void;
  read: (value: T) => JSONContent;
  write: (doc: JSONContent) => T;
  /** Whether two values say the same. */
  isSame: (one: T, other: T) => boolean;
}

/** Whether a key belongs to the screen around the document: Esc, and what sends. */
const isOfTheScreen = (_: unknown, { key, ctrlKey, metaKey }: KeyboardEvent) =>
  key === "Escape" || (key === "Enter" && (ctrlKey || metaKey));

/** A document in which one writes a value that is stored in another shape. */
export function useDocument<T>({ value, onChange, read, write, isSame, editorProps, ...options }: Options<T>) {
  const shown = useRef(value);
  const editor = useEditor({
    ...options,
    editorProps: { ...editorProps, handleDOMEvents: { keydown: isOfTheScreen } },
    content: read(value),
    onUpdate: ({ editor: typed }) => {
      const next = write(typed.getJSON());
      if (isSame(next, shown.current)) return;
      shown.current = next;
      onChange(next);
    },
  });
  // What changed elsewhere, by undo or in another window, is shown; what is typed here stands there already.
  useEffect(() => {
    if (!editor || isSame(value, shown.current)) return;
    shown.current = value;
    const { from, to } = editor.state.selection;
    editor.chain().setMeta("addToHistory", false).setContent(read(value), { emitUpdate: false }).run();
    const end = editor.state.doc.content.size;
    editor.commands.setTextSelection({ from: Math.min(from, end), to: Math.min(to, end) });
  }, [editor, value, read, isSame]);
  return editor;
}
