import { NodeViewWrapper, type NodeViewProps } from "@tiptap/react";
import { TextBox } from "../../../kit/fields";
import { signatureName } from "../words";
import { Chip } from "./Chip";
import { plainText } from "./formattedText";
import { useSurroundings } from "./surroundings";

const look = "rounded-soft border border-edge bg-glow px-1.5";

/** A known value in the line. What is said while it is not known is said on it. */
export function KnownView({ node, selected, updateAttributes, deleteNode }: NodeViewProps) {
  const { choices, isAlwaysKnown, signature } = useSurroundings();
  const { name, fallback } = node.attrs as { name: string; fallback: string };
  const words = choices.find((one) => one.name === name)?.words ?? "something that is not there any more";
  if (name === signatureName && signature !== undefined)
    return (
      <NodeViewWrapper as="span">
        <span
          title="The signature. It is written in the library."
          className={`inline-block border-l-4 border-edge bg-mist px-2 align-top whitespace-pre-line ${selected ? "outline-2 outline-dusk" : ""}`}
        >
          {plainText(signature)}
        </span>
      </NodeViewWrapper>
    );
  if (isAlwaysKnown)
    return (
      <NodeViewWrapper as="span" className={`${look} ${selected ? "outline-2 outline-dusk" : ""}`}>
        {words}
      </NodeViewWrapper>
    );
  return (
    <NodeViewWrapper as="span">
      <Chip
        label={fallback ? `${words}, or “${fallback}”` : words}
        look={look}
        isChosen={selected}
        shown={
          fallback ? (
            <>
              {words}, <i>or “{fallback}”</i>
            </>
          ) : (
            words
          )
        }
        onRemove={deleteNode}
      >
        <TextBox
          label={`While “${words}” is not known, it says`}
          placeholder="nothing"
          value={fallback}
          onChange={(e) => updateAttributes({ fallback: e.target.value.replace(/[{}|]/g, "") })}
        />
      </Chip>
    </NodeViewWrapper>
  );
}
