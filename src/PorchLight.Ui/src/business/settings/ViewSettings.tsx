import { useEffect, useRef, type KeyboardEvent } from "react";
import { closestCenter, DndContext, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { SortableContext, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { GripVertical } from "lucide-react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { controlLook } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { SavedForm } from "../saving/SavedForm";
import { useEdit } from "../saving/useEdit";
import { linesOf, moved, movedBy, withoutPart, type Line } from "./arrangement";

type Arrangement = Schemas["Arrangement"];
type Scope = Schemas["RecordScope"];

/** How the views of clients and projects are put together, once for the whole business. */
export function ViewSettings({ which }: { which: string }) {
  const arrangements = useQuery({
    ...ask(["arrangements"], () => api.GET("/api/arrangements")),
    refetchOnMount: "always",
  });
  const fields = useQuery(ask(["fields"], () => api.GET("/api/fields")));
  const error = arrangements.error ?? fields.error;
  // What is edited starts from what is stored now, never from what was seen the last time.
  if (!arrangements.data || !fields.data || !arrangements.isFetchedAfterMount)
    return error ? <Failure error={error} /> : <Skeleton rows={8} />;
  const { client, project, services } = arrangements.data;
  const service = services.find((one) => `project-${one.service}` === which);
  const scope: Scope = which === "client" ? "client" : "project";
  const names = new Map(fields.data.map(({ field }) => [field.key, field]));
  return (
    <div className="grid gap-4">
      <nav aria-label="Views" className="flex flex-wrap gap-x-4 gap-y-1">
        {[
          ["client", "Clients"],
          ["project", "Projects"],
          ...services.map((one) => [`project-${one.service}`, `Projects: ${one.name}`]),
        ].map(([key, words]) => (
          <Link
            key={key}
            to={`/settings/views/${key}`}
            aria-current={key === which ? "page" : undefined}
            className={key === which ? "font-semibold" : "underline"}
          >
            {words}
          </Link>
        ))}
      </nav>
      <Arrange
        key={`${which} ${service?.own ? "own" : ""}`}
        scope={scope}
        service={service?.service ?? null}
        stored={scope === "client" ? client : (service?.own ?? project)}
        about={
          service
            ? service.own
              ? `Projects about “${service.name}” are shown this way.`
              : `Projects about “${service.name}” are shown as all others. Change something and save it, and they have a view of their own.`
            : scope === "client"
              ? "Every client is shown this way, to everyone who works here."
              : "Every project is shown this way, unless its service has a view of its own."
        }
        isOwn={Boolean(service?.own)}
        names={names}
      />
    </div>
  );
}

interface Props {
  scope: Scope;
  service: string | null;
  stored: Arrangement;
  about: string;
  isOwn: boolean;
  names: Map<string, Schemas["Field"]>;
}

function Arrange({ scope, service, stored, about, isOwn, names }: Props) {
  const queries = useQueryClient();
  const say = useNotice();
  const params = { path: { service: service ?? "" } };
  const edit = useEdit(stored, async (body) => {
    const kept = await orProblem(
      scope === "client"
        ? api.PUT("/api/arrangements/client", { body })
        : api.PUT("/api/arrangements/project/{service}", { params, body }),
    );
    if (service && !isOwn) say({ words: "This service has a view of its own now." });
    return kept;
  });
  const forget = useMutation({
    mutationFn: () =>
      orProblem(
        scope === "client"
          ? api.DELETE("/api/arrangements/client")
          : api.DELETE("/api/arrangements/project/{service}", { params }),
      ),
    onSuccess: () => queries.resetQueries({ queryKey: ["arrangements"] }),
  });
  const { now } = edit;
  const lines = linesOf(now);
  const titles = new Map(now.parts.map((part) => [part.key, part.title]));
  const nameOf = (place: string) => titles.get(place.split(".")[1] ?? "") ?? "The order of the parts";

  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  // A line that is moved in the page loses the focus it has; it keeps it.
  const focused = useRef<string | null>(null);
  const list = useRef<HTMLOListElement>(null);
  useEffect(() => {
    if (focused.current)
      list.current?.querySelector<HTMLElement>(`[data-line="${globalThis.CSS.escape(focused.current)}"]`)?.focus();
    focused.current = null;
  }, [now]);
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const id = (event.target as HTMLElement).dataset.line;
    const by = event.key === "ArrowUp" ? -1 : event.key === "ArrowDown" ? 1 : null;
    if (!id || by === null) return;
    event.preventDefault();
    if (event.altKey) {
      focused.current = id;
      edit.change(movedBy(now, id, by));
    } else {
      const all = [...event.currentTarget.querySelectorAll<HTMLElement>("[data-line]")];
      all[all.indexOf(event.target as HTMLElement) + by]?.focus();
    }
  };

  return (
    <SavedForm
      edit={edit}
      nameOf={nameOf}
      beside={
        service ? (
          isOwn && (
            <Button weight="quiet" disabled={forget.isPending} onClick={() => forget.mutate()}>
              Show them as all other projects
            </Button>
          )
        ) : (
          <Button weight="quiet" disabled={forget.isPending} onClick={() => forget.mutate()}>
            Reset to the original
          </Button>
        )
      }
    >
      <p>{about}</p>
      <p className="mb-3 text-slate">
        Drag a line by its handle, or focus the handle and press Alt with an arrow key. A part takes its fields along.
      </p>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => over && edit.change(moved(now, String(active.id), String(over.id)))}
      >
        <SortableContext items={lines.map((line) => line.id)} strategy={verticalListSortingStrategy}>
          {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- the handles in it are pressed */}
          <ol ref={list} className="border-y border-line" onKeyDown={onKeyDown}>
            {lines.map((line) => (
              <ArrangedLine
                key={line.id}
                line={line}
                field={line.part ? undefined : names.get(line.field)}
                finding={line.part && edit.findings.get(`parts.${line.part.key}.title`)}
                onPart={(part) => edit.change({ parts: now.parts.map((one) => (one.key === part.key ? part : one)) })}
                onTakeAway={(key) => edit.change(withoutPart(now, key))}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <Button
        className="mt-3"
        onClick={() => {
          let number = now.parts.length + 1;
          while (titles.has(`part-${number}`)) number++;
          edit.change({
            parts: [...now.parts, { key: `part-${number}`, kind: "fields", title: "", beside: false, fields: [] }],
          });
        }}
      >
        Add a part
      </Button>
      <Failure error={forget.error} />
    </SavedForm>
  );
}

function ArrangedLine(props: {
  line: Line;
  field: Schemas["Field"] | undefined;
  finding: string | undefined;
  onPart: (part: Schemas["ArrangedPart"]) => void;
  onTakeAway: (key: string) => void;
}) {
  const { line, field } = props;
  const { setNodeRef, transform, transition, isDragging, listeners } = useSortable({ id: line.id });
  const { part } = line;
  const words = part ? part.title || "the new part" : (field?.label ?? line.field);
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`flex flex-wrap items-center gap-x-2 border-line bg-card ${part ? "mt-2 border-t py-1.5 first:mt-0 first:border-t-0" : "py-0.5 pl-8"} ${isDragging ? "relative z-10 opacity-80" : ""}`}
    >
      <button
        type="button"
        data-line={line.id}
        className="cursor-grab touch-none rounded-soft p-1.5 text-slate hover:text-ink"
        {...listeners}
        aria-label={`Move ${words}`}
      >
        <GripVertical size={16} aria-hidden />
      </button>
      {part ? (
        <>
          <input
            aria-label={`Name of the part ${words}`}
            className={`${controlLook} min-w-40 flex-1 font-semibold`}
            value={part.title}
            placeholder="What this part is called"
            aria-invalid={props.finding ? true : undefined}
            onChange={(e) => props.onPart({ ...part, title: e.target.value })}
          />
          <label className="inline-flex items-center gap-2">
            <input
              type="checkbox"
              className="size-[1.15rem] accent-dusk"
              checked={part.beside}
              onChange={(e) => props.onPart({ ...part, beside: e.target.checked })}
            />
            at the side
          </label>
          {part.kind === "fields" ? (
            <Button weight="quiet" aria-label={`Remove ${words}`} onClick={() => props.onTakeAway(part.key)}>
              Remove
            </Button>
          ) : (
            <span className="w-24" />
          )}
          {props.finding && (
            <span role="alert" className="w-full font-semibold text-brick">
              {props.finding}
            </span>
          )}
        </>
      ) : (
        <span className={field?.archived ? "text-slate" : ""}>
          {words}
          {field?.archived && " (put away)"}
        </span>
      )}
    </li>
  );
}
