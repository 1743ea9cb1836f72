import { useEffect, useRef, type KeyboardEvent, type MouseEvent } from "react";
import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from "@dnd-kit/core";
import { CSS } from "@dnd-kit/utilities";
import { keepPreviousData, useQueries } from "@tanstack/react-query";
import { Link } from "react-router";
import { type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { FitMark } from "../../kit/marks";
import { Failure } from "../../kit/states";
import { askFirst, type Page, type QueryOf } from "../lists/list";
import { useStageMover } from "./useStageMover";

type Row = Schemas["InquiryRow"];
type Stage = Schemas["Stage"];

const onColumn = 12;

interface Props {
  query: QueryOf<"/api/inquiries">;
  stages: Stage[];
  lostReasons: string[];
  /** The inquiry whose panel is open. */
  open?: string;
  /** Shows the list of one stage. */
  onShowAll: (stage: string) => void;
}

/** The inquiries on a board, a column for each stage; a card is dragged to another one, or moved with Alt and the arrows. */
export function StageBoard({ query, stages: all, lostReasons, open, onShowAll }: Props) {
  const stages = all.filter((stage) => !query.stages?.length || query.stages.includes(stage.key));
  const columns = useQueries({
    queries: stages.map((stage) => ({
      ...askFirst("/api/inquiries", { ...query, stages: [stage.key] }, onColumn),
      placeholderData: keepPreviousData,
    })),
  });
  const mover = useStageMover(lostReasons);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  // A card that comes into another column is drawn anew there; the focus goes with it.
  const stepped = useRef<string | null>(null);
  useEffect(() => {
    if (stepped.current && document.activeElement === document.body)
      document.querySelector<HTMLElement>(`[data-card="${window.CSS.escape(stepped.current)}"]`)?.focus();
  });
  const move = (id: string, from: string, to: string | undefined) => {
    const stage = stages.find((one) => one.key === to);
    if (stage && from !== to) mover.begin([id], stage, from);
  };
  return (
    <>
      <p className="mb-2 text-slate">Drag a card to another stage, or select it and press Alt with an arrow key.</p>
      {mover.dialog}
      <Failure error={columns.find((one) => one.error)?.error} />
      <DndContext
        sensors={sensors}
        onDragEnd={({ active, over }) =>
          over && move(String(active.id), String(active.data.current?.stage), String(over.id))
        }
      >
        <div className="flex gap-3 overflow-x-auto pb-4">
          {stages.map((stage, index) => (
            <Column
              key={stage.key}
              stage={stage}
              found={columns[index]?.data}
              open={open}
              onShowAll={() => onShowAll(stage.key)}
              onStep={(id, by) => {
                stepped.current = id;
                move(id, stage.key, stages[index + by]?.key);
              }}
            />
          ))}
        </div>
      </DndContext>
    </>
  );
}

interface ColumnProps {
  stage: Stage;
  found: Page<Row> | undefined;
  open?: string;
  onShowAll: () => void;
  onStep: (id: string, by: number) => void;
}

function Column({ stage, found, open, onShowAll, onStep }: ColumnProps) {
  const { setNodeRef, isOver } = useDroppable({ id: stage.key });
  const more = (found?.total ?? 0) - (found?.rows.length ?? 0);
  return (
    <section
      ref={setNodeRef}
      aria-label={stage.name}
      className={`w-52 shrink-0 rounded-soft border p-2 ${isOver ? "border-dusk bg-glow" : "border-line bg-mist"}`}
    >
      <h2 className="mb-2 px-1 text-base">
        {stage.name} <span className="font-body font-normal text-slate">{found?.total ?? ""}</span>
      </h2>
      <ul className="grid gap-2">
        {found?.rows.map((row) => (
          <Card key={row.id} row={row} stage={stage.key} isOpen={row.id === open} onStep={onStep} />
        ))}
      </ul>
      {more > 0 && (
        <Button weight="quiet" className="mt-1" onClick={onShowAll}>
          {more} more
        </Button>
      )}
    </section>
  );
}

interface CardProps {
  row: Row;
  stage: string;
  isOpen: boolean;
  onStep: ColumnProps["onStep"];
}

function Card({ row, stage, isOpen, onStep }: CardProps) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: row.id, data: { stage } });
  // Letting a card go is no press on it.
  const wasDragged = useRef(false);
  useEffect(() => {
    if (isDragging) wasDragged.current = true;
  }, [isDragging]);
  const onClick = (event: MouseEvent) => {
    if (wasDragged.current) event.preventDefault();
    wasDragged.current = false;
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = event.key === "ArrowLeft" ? -1 : event.key === "ArrowRight" ? 1 : 0;
    if (!event.altKey || by === 0) return;
    event.preventDefault();
    onStep(row.id, by);
  };
  return (
    <li
      ref={setNodeRef}
      {...listeners}
      style={{ transform: CSS.Translate.toString(transform) }}
      className={`touch-none rounded-soft border bg-card shadow-soft ${isDragging ? "relative z-10 border-dusk" : "border-line"} ${isOpen ? "shadow-[inset_4px_0_0_var(--color-dusk)]" : ""}`}
    >
      <Link
        to={`/inquiries/${row.id}?board`}
        data-card={row.id}
        draggable={false}
        onClick={onClick}
        onKeyDown={onKeyDown}
        className={`block rounded-soft p-2.5 ${row.urgent ? "bg-glow" : ""}`}
      >
        <strong className="block truncate">{row.name}</strong>
        <span className="block text-note">
          <FitMark fit={row.fit} size={16} />
        </span>
        {row.budget && <span className="block truncate text-note text-slate tabular-nums">{row.budget}</span>}
        <span className={`block text-note ${row.group === "late" ? "font-semibold text-brick" : "text-slate"}`}>
          {row.promise ?? (row.until ? `until ${row.until}` : `came ${row.received}`)}
        </span>
      </Link>
    </li>
  );
}
