import { NodeViewWrapper, type NodeViewProps } from "@tiptap/react";
import { TextBox } from "../../../kit/fields";
import { Chip } from "./Chip";

/** A picture in the line. */
export function PictureView({ node, selected, updateAttributes, deleteNode }: NodeViewProps) {
  const { file, words } = node.attrs as { file: string; words: string };
  return (
    <NodeViewWrapper as="span">
      <Chip
        label={`Picture: ${words}`}
        look="inline-block max-w-full align-bottom"
        isChosen={selected}
        shown={<img src={`/public/files/${file}`} alt={words || "A picture"} className="max-h-60" />}
        onRemove={deleteNode}
      >
        <TextBox
          label="What it shows"
          help="For those who do not see pictures."
          value={words}
          onChange={(e) => updateAttributes({ words: e.target.value })}
        />
      </Chip>
    </NodeViewWrapper>
  );
}
