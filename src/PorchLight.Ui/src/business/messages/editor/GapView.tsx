import { NodeViewContent, NodeViewWrapper, type NodeViewProps } from "@tiptap/react";
import { X } from "lucide-react";
import { useSurroundings } from "./surroundings";

const look = "relative my-3 rounded-soft border-2 border-dashed px-3 py-2";
const hint = "pointer-events-none absolute text-slate select-none";

/** A gap in which one says what belongs there. */
export const GapToPrompt = ({ node, deleteNode }: NodeViewProps) => (
  <NodeViewWrapper className={`${look} border-dusk bg-glow pr-10`}>
    <span contentEditable={false} className="block text-note text-slate select-none">
      You fill this each time
    </span>
    {node.content.size === 0 && (
      <span contentEditable={false} className={hint}>
        What belongs here, like “one line about their place”
      </span>
    )}
    <NodeViewContent className="min-h-6" />
    <button
      type="button"
      contentEditable={false}
      aria-label="Remove the gap"
      title="Remove the gap"
      className="absolute top-1.5 right-1.5 rounded-soft p-1 text-slate hover:text-ink"
      onClick={deleteNode}
    >
      <X size={16} aria-hidden />
    </button>
  </NodeViewWrapper>
);

/** A gap that is filled before the message goes. */
export function GapToFill({ node }: NodeViewProps) {
  const { missing } = useSurroundings();
  const { key, prompt } = node.attrs as { key: string; prompt: string };
  const isOpen = node.textBetween(0, node.content.size, " ", "…").trim() === "";
  const wrong = isOpen ? missing?.get(key) : undefined;
  return (
    <NodeViewWrapper
      role="group"
      aria-label={prompt}
      data-open={isOpen || undefined}
      className={`${look} ${wrong ? "border-brick" : isOpen ? "border-dusk" : "border-edge"} ${isOpen ? "bg-glow" : "bg-card"}`}
    >
      <span contentEditable={false} className={isOpen ? hint : "block text-note text-slate select-none"}>
        {prompt}
      </span>
      <NodeViewContent />
      {wrong && (
        <span contentEditable={false} className="block font-semibold text-brick select-none">
          {wrong}
        </span>
      )}
    </NodeViewWrapper>
  );
}
