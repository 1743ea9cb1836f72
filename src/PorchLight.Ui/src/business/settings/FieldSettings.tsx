import { useState } from "react";
import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { GripVertical } from "lucide-react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { FieldDialog, newField } from "./FieldDialog";
import { kindWords } from "./fieldKinds";

type View = Schemas["FieldView"];
type Scope = Schemas["RecordScope"];

const parts: [Scope, string, string][] = [
  ["client", "Of a client", "They follow the person to every project."],
  ["project", "Of a project", "They belong to one piece of work only."],
];

/** The fields of the business: what stands on file of clients and projects. */
export function FieldSettings() {
  const fields = useQuery(ask(["fields"], () => api.GET("/api/fields")));
  const [open, setOpen] = useState<{
    field: Schemas["Field"];
    scope: Scope;
    isNew: boolean;
    isBuiltIn: boolean;
  } | null>(null);
  const [showsArchived, setShowsArchived] = useState(false);
  if (!fields.data) return fields.error ? <Failure error={fields.error} /> : <Skeleton rows={8} />;
  const archived = fields.data.filter((one) => one.field.archived);
  return (
    <div className="grid gap-6">
      {parts.map(([scope, title, under]) => (
        <section key={scope} className="rounded-soft bg-card p-6 shadow-soft">
          <div className="mb-3 flex flex-wrap items-start justify-between gap-2">
            <div>
              <h2 className="text-section">{title}</h2>
              <p className="text-slate">{under}</p>
            </div>
            <Button onClick={() => setOpen({ field: newField(), scope, isNew: true, isBuiltIn: false })}>
              {scope === "client" ? "A new field of clients" : "A new field of projects"}
            </Button>
          </div>
          <Ordered
            fields={fields.data.filter((one) => one.scope === scope && !one.field.archived)}
            all={fields.data}
            onOpen={(view) => setOpen({ field: view.field, scope, isNew: false, isBuiltIn: view.isBuiltIn })}
          />
        </section>
      ))}
      {archived.length > 0 && (
        <section className="rounded-soft bg-card p-6 shadow-soft">
          <Button
            weight="quiet"
            className="-ml-3"
            aria-expanded={showsArchived}
            onClick={() => setShowsArchived(!showsArchived)}
          >
            {archived.length === 1 ? "One field is put away" : `${archived.length} fields are put away`}
          </Button>
          {showsArchived && (
            <ul className="mt-2 grid gap-1">
              {archived.map((view) => (
                <li key={view.field.key}>
                  <button
                    type="button"
                    className="underline"
                    onClick={() =>
                      setOpen({ field: view.field, scope: view.scope, isNew: false, isBuiltIn: view.isBuiltIn })
                    }
                  >
                    {view.field.label}
                  </button>
                </li>
              ))}
            </ul>
          )}
        </section>
      )}
      {open && <FieldDialog key={open.field.key} {...open} onClose={() => setOpen(null)} />}
    </div>
  );
}

/** Fields in the order they are shown; dragged, or moved by the keyboard on their handle. */
function Ordered(props: { fields: View[]; all: View[]; onOpen: (view: View) => void }) {
  const say = useNotice();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const keys = props.fields.map((one) => one.field.key);
  const put = (order: string[]) => orProblem(api.PUT("/api/fields/order", { body: order }));
  const order = useMutation({
    mutationFn: put,
    onSuccess: () => {
      say({
        words: "Moved.",
        undo: async () => {
          await put(props.all.map((one) => one.field.key));
        },
      });
    },
  });
  return (
    <>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => {
          if (!over || active.id === over.id) return;
          const moved = arrayMove(keys, keys.indexOf(String(active.id)), keys.indexOf(String(over.id)));
          const others = props.all.map((one) => one.field.key).filter((key) => !keys.includes(key));
          order.mutate([...moved, ...others]);
        }}
      >
        <SortableContext items={keys} strategy={verticalListSortingStrategy}>
          <ul className="divide-y divide-line border-y border-line">
            {props.fields.map((view) => (
              <Line key={view.field.key} view={view} onOpen={() => props.onOpen(view)} />
            ))}
          </ul>
        </SortableContext>
      </DndContext>
      <Failure error={order.error} />
    </>
  );
}

function Line({ view, onOpen }: { view: View; onOpen: () => void }) {
  const { field } = view;
  const { setNodeRef, transform, transition, isDragging, attributes, listeners } = useSortable({ id: field.key });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`flex items-center gap-2 bg-card ${isDragging ? "relative z-10 opacity-80" : ""}`}
    >
      <button
        type="button"
        className="cursor-grab touch-none rounded-soft p-1.5 text-slate hover:text-ink"
        {...attributes}
        {...listeners}
        aria-label={`Move ${field.label}`}
      >
        <GripVertical size={16} aria-hidden />
      </button>
      <button
        type="button"
        className="grid min-h-10 min-w-0 flex-1 items-center gap-x-4 rounded-soft px-2 py-1 text-left hover:bg-mist sm:grid-cols-[minmax(0,1fr)_9rem_minmax(0,1.4fr)]"
        onClick={onOpen}
      >
        <span className="truncate">{field.label}</span>
        <span className="truncate text-slate">{kindWords[field.kind]}</span>
        <span className="truncate text-slate">
          {[
            field.atAGlance && "at a glance",
            field.clientKeepsIt && "kept by the client",
            view.filled > 0 && `filled in ${view.filled}`,
            view.forms.length > 0 && `from ${view.forms.join(", ")}`,
          ]
            .filter(Boolean)
            .join("; ")}
        </span>
      </button>
    </li>
  );
}
