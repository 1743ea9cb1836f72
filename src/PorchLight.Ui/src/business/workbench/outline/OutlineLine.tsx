import { memo } from "react";
import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { CornerDownRight, Scale, Split, TriangleAlert } from "lucide-react";
import { MarginMark } from "../../../kit/marks";

interface Props {
  id: string;
  /** What it is called while lines are dragged, where that is not its key. */
  dragId?: string;
  number?: number;
  /** What stands before the words: "Page 2". */
  before?: string;
  words: string;
  isOpen: boolean;
  isChosen?: boolean;
  isFound?: boolean;
  hasFinding?: boolean;
  condition?: string;
  landsIn?: string;
  signals?: string;
  strong?: boolean;
  /** Whether it is one of several in a list; headings are not. */
  inList?: boolean;
  quiet?: boolean;
  canMove?: boolean;
  onChoose: (key: string, also: boolean) => void;
}

/** One line of the outline, with its marks in the margin. */
export const OutlineLine = memo(function OutlineLine(props: Props) {
  const { id, dragId = id, number, before, words, isOpen, isChosen, isFound, condition, landsIn, signals } = props;
  const drag = useSortable({ id: dragId, disabled: { draggable: !props.canMove, droppable: false } });
  const Line = (props.inList ?? !props.strong) ? "li" : "div";
  return (
    <Line
      ref={drag.setNodeRef}
      style={{ transform: CSS.Translate.toString(drag.transform), transition: drag.transition }}
      className={drag.isDragging ? "relative z-10 opacity-80" : ""}
    >
      <button
        type="button"
        data-line={id}
        aria-current={isOpen ? "true" : undefined}
        aria-pressed={isChosen ? true : undefined}
        className={`flex min-h-8 w-full items-start gap-2 rounded-soft border-l-4 px-2 py-1 text-left ${
          isOpen
            ? "border-dusk bg-card shadow-soft"
            : isChosen
              ? "border-dusk bg-line"
              : "border-transparent hover:bg-card/70"
        } ${isFound ? "outline-2 outline-dusk" : ""} ${props.canMove ? "touch-none" : ""}`}
        onClick={(e) => props.onChoose(id, e.ctrlKey || e.metaKey || e.shiftKey)}
        {...(props.canMove ? drag.listeners : {})}
      >
        {number !== undefined && <span className="w-6 shrink-0 text-right text-slate tabular-nums">{number}</span>}
        {before && <span className="shrink-0 text-slate">{before}</span>}
        <span
          className={`min-w-0 flex-1 wrap-anywhere ${props.strong ? "font-head font-semibold" : ""} ${props.quiet ? "text-slate" : ""}`}
        >
          {words}
        </span>
        <span className="flex shrink-0 gap-1 pt-0.5 text-dusk">
          {props.hasFinding && (
            <MarginMark label="Something here keeps it from being published">
              <TriangleAlert size={18} className="text-brick" aria-hidden />
            </MarginMark>
          )}
          {landsIn && (
            <MarginMark label={landsIn}>
              <CornerDownRight size={18} aria-hidden />
            </MarginMark>
          )}
          {signals && (
            <MarginMark label={signals}>
              <Scale size={18} aria-hidden />
            </MarginMark>
          )}
          {condition && (
            <MarginMark label={`Only when ${condition}`}>
              <Split size={18} aria-hidden />
            </MarginMark>
          )}
        </span>
      </button>
    </Line>
  );
});
