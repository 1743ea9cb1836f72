import { type ReactNode } from "react";
import type { Editor } from "@tiptap/core";
import { useEditorState } from "@tiptap/react";
import { Bold, Image, List, ListOrdered, TextCursorInput } from "lucide-react";
import { Menu, MenuItem } from "../../../kit/Menu";
import { newKey } from "../../../kit/newKey";
import type { KnownChoice } from "../words";
import { InsertValue } from "./InsertValue";
import { LinkButton } from "./LinkButton";
import { toolLook } from "./toolLook";

interface Props {
  editor: Editor;
  /** What the words are called. */
  label: string;
  pictures: { key: string; name: string }[];
  choices: KnownChoice[];
  /** Whether gaps can be made in it. */
  hasGaps: boolean;
}

/** What can be done with the words of a message. */
export function Toolbar({ editor, label, pictures, choices, hasGaps }: Props) {
  const on = useEditorState({
    editor,
    selector: () => ({
      bold: editor.isActive("bold"),
      dots: editor.isActive("bulletList"),
      numbers: editor.isActive("orderedList"),
      link: editor.isActive("link"),
    }),
  });
  const doing = () => editor.chain().focus();
  return (
    <div
      role="group"
      aria-label={`Formatting: ${label}`}
      className="flex flex-wrap items-center gap-0.5 border-b border-line p-1"
    >
      <Tool on={on.bold} onPress={() => doing().toggleBold().run()} icon={<Bold size={16} aria-hidden />}>
        Bold
      </Tool>
      <Tool on={on.dots} onPress={() => doing().toggleBulletList().run()} icon={<List size={16} aria-hidden />}>
        List
      </Tool>
      <Tool
        on={on.numbers}
        onPress={() => doing().toggleOrderedList().run()}
        icon={<ListOrdered size={16} aria-hidden />}
      >
        Numbers
      </Tool>
      <LinkButton editor={editor} isOn={on.link} />
      {pictures.length > 0 && (
        <Menu
          trigger={
            <button type="button" className={toolLook}>
              <Image size={16} aria-hidden /> Picture
            </button>
          }
          className="w-80"
        >
          {pictures.map((one) => (
            <MenuItem
              key={one.key}
              onSelect={() =>
                editor.commands.insertContent({ type: "picture", attrs: { file: one.key, words: one.name } })
              }
            >
              {one.name}
            </MenuItem>
          ))}
        </Menu>
      )}
      {hasGaps && (
        <Tool onPress={() => addGap(editor)} icon={<TextCursorInput size={16} aria-hidden />}>
          Add a gap
        </Tool>
      )}
      <InsertValue editor={editor} choices={choices} into={label} look={toolLook} />
    </div>
  );
}

interface ToolProps {
  on?: boolean;
  onPress: () => void;
  icon: ReactNode;
  children: ReactNode;
}

const Tool = ({ on, onPress, icon, children }: ToolProps) => (
  <button type="button" aria-pressed={on} className={toolLook} onClick={onPress}>
    {icon} {children}
  </button>
);

/** Makes a gap behind the line one writes in, or in the place of an empty one, and goes on in it. */
function addGap(editor: Editor) {
  const { $from } = editor.state.selection;
  const [before, behind] = $from.depth > 0 ? [$from.before(1), $from.after(1)] : [$from.pos, $from.pos];
  const isEmptyLine = $from.parent.type.name === "paragraph" && $from.parent.content.size === 0;
  const from = $from.depth === 1 && isEmptyLine ? before : behind;
  editor
    .chain()
    .insertContentAt({ from, to: behind }, { type: "gap", attrs: { key: newKey().slice(0, 8) } })
    .focus(from + 1)
    .run();
}
