import { useEffect, useRef, useState, type ReactNode } from "react";
import { Popover } from "radix-ui";
import { History } from "lucide-react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { findingsOf, orProblem, Problem, type Clash, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { fileSize } from "../../kit/fileSize";
import { menuLook } from "../../kit/menu";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { Clashes } from "../saving/Clashes";
import { ValueBox } from "../clientParts/ValueBox";

type OnFile = Schemas["FieldOnFile"];
type Answer = Schemas["Answer"];

interface Props {
  client: string;
  /** The project whose fields these are; null for the client's own. */
  project: string | null;
  fields: OnFile[];
}

/** Fields with what stands in them, each to be changed where it stands. */
export function FieldRows({ client, project, fields }: Props) {
  const [isOpen, setOpen] = useState(false);
  const filled = fields.filter((one) => one.value);
  const empty = fields.filter((one) => !one.value);
  return (
    <>
      <dl className="grid gap-y-1.5">
        {filled.map((one, index) => {
          const next = filled[index + 1];
          // Values that came together say where they came from once.
          const last = next?.source !== one.source || next?.at !== one.at;
          return (
            <FieldRow key={one.field.key} client={client} project={project} onFile={one}>
              {last && one.source && (
                <span className="block text-note text-slate" title={one.exactly ?? undefined}>
                  {one.source}, {one.at}
                </span>
              )}
            </FieldRow>
          );
        })}
        {isOpen && empty.map((one) => <FieldRow key={one.field.key} client={client} project={project} onFile={one} />)}
      </dl>
      {filled.length === 0 && !isOpen && <p className="text-slate">Nothing is on file yet.</p>}
      {empty.length > 0 && (
        <Button weight="quiet" className="-ml-3" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {isOpen
            ? "Hide empty fields"
            : `Show ${empty.length === 1 ? "an empty field" : `${empty.length} empty fields`}`}
        </Button>
      )}
    </>
  );
}

function FieldRow(props: { client: string; project: string | null; onFile: OnFile; children?: ReactNode }) {
  const { client, project, onFile } = props;
  const { field, value, words } = onFile;
  const [isEditing, setEditing] = useState(false);
  const shown = useRef<HTMLButtonElement>(null);
  const wasEditing = useRef(false);
  useEffect(() => {
    if (wasEditing.current && !isEditing) shown.current?.focus();
    wasEditing.current = isEditing;
  }, [isEditing]);
  return (
    <div className="grid grid-cols-[minmax(0,2fr)_minmax(0,5fr)] gap-x-4">
      <dt className="py-0.5 text-slate" title={field.help || undefined}>
        {field.label}
      </dt>
      <dd className="min-w-0 wrap-anywhere">
        {isEditing ? (
          <EditField client={client} project={project} onFile={onFile} onClose={() => setEditing(false)} />
        ) : (
          <span className="flex items-start gap-1">
            {value?.kind === "files" && (
              <ul className="min-w-0 px-1.5 py-0.5">
                {value.files.map((file) => (
                  <li key={file.id}>
                    <a className="underline" href={`/api/files/${file.id}`} download>
                      {file.name}
                    </a>{" "}
                    <span className="text-slate">{fileSize(file.bytes ?? 0)}</span>
                  </li>
                ))}
              </ul>
            )}
            <button
              ref={shown}
              type="button"
              aria-label={`Change ${field.label}${words ? `: ${words}` : ""}`}
              className="min-w-0 flex-1 rounded-soft border border-transparent px-1.5 py-0.5 text-left whitespace-pre-wrap hover:border-edge hover:bg-card"
              onClick={() => setEditing(true)}
            >
              {value?.kind === "files" ? (
                <span className="text-slate">change</span>
              ) : (
                words || <span className="text-slate">nothing yet</span>
              )}
            </button>
            {value && <ValueHistory client={client} project={project} field={field} />}
          </span>
        )}
        {!isEditing && props.children && <span className="block px-1.5">{props.children}</span>}
      </dd>
    </div>
  );
}

/** A value in its box, to be written anew. */
export function EditField(props: {
  client: string;
  project: string | null;
  onFile: OnFile;
  /** What stands in the box at first, where that is not what is on file. */
  start?: Answer;
  onClose: () => void;
}) {
  const { client, project, onFile, onClose } = props;
  const { field } = onFile;
  const say = useNotice();
  const [was, setWas] = useState<Answer | null>(onFile.value);
  const [now, setNow] = useState<Answer | null>(props.start ?? onFile.value);
  const [clashes, setClashes] = useState<Clash[]>([]);
  const put = (from: Answer | null, to: Answer | null) =>
    orProblem(
      api.PUT("/api/clients/{id}/values/{field}", {
        params: { path: { id: client, field: field.key } },
        body: { projectId: project, was: from, now: to },
      }),
    );
  const save = useMutation({
    mutationFn: (edit: { was: Answer | null; now: Answer | null }) => put(edit.was, edit.now),
    onSuccess: (stored, edit) => {
      onClose();
      if (JSON.stringify(stored.value) !== JSON.stringify(edit.was))
        say({
          words: `${field.label} changed.`,
          undo: async () => {
            await put(stored.value, edit.was);
          },
        });
    },
    onError: (error) => setClashes(error instanceof Problem ? error.clashes : []),
  });
  const finding = findingsOf(save.error).get(field.key);
  // Whoever opens a value goes on in it; whoever closes it is back where they were.
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => form.current?.querySelector<HTMLElement>("input, textarea, select, button")?.focus(), []);
  return (
    // Esc closes the box, and must not close the panel around it.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <form
      ref={form}
      className="mb-2 grid gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (!save.isPending) save.mutate({ was, now });
      }}
      onKeyDown={(e) => {
        if (e.key !== "Escape") return;
        e.preventDefault();
        e.stopPropagation();
        onClose();
      }}
    >
      <ValueBox field={field} value={now} onChange={setNow} invalid={Boolean(save.error)} />
      {field.help && <span className="text-slate">{field.help}</span>}
      {finding ? (
        <span role="alert" className="font-semibold text-brick">
          {finding}
        </span>
      ) : (
        clashes.length === 0 && <Failure error={save.error} />
      )}
      <Clashes
        clashes={clashes}
        nameOf={() => field.label}
        say={sayAnswer}
        onChoose={(clash, keep) => {
          const theirs = clash.theirs as Answer | null;
          setClashes([]);
          setWas(theirs);
          if (keep === "theirs") onClose();
          else save.mutate({ was: theirs, now });
        }}
      />
      <span className="flex gap-2">
        <Button weight="main" type="submit" disabled={save.isPending || clashes.length > 0}>
          Save
        </Button>
        <Button weight="quiet" onClick={onClose}>
          Cancel
        </Button>
      </span>
    </form>
  );
}

/** An answer in short, for showing two beside each other. */
function sayAnswer(value: unknown): string | undefined {
  if (typeof value !== "object" || value === null) return undefined;
  const { kind: _, ...rest } = value as Record<string, unknown>;
  return Object.values(rest)
    .filter((one) => typeof one === "string" || typeof one === "number")
    .join(" ");
}

/** Everything that ever stood in a field, one press away. */
export function ValueHistory(props: { client: string; project: string | null; field: Schemas["Field"] }) {
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`What stood in ${props.field.label}`}
        className="shrink-0 rounded-soft p-1 text-slate hover:text-ink"
      >
        <History size={16} aria-hidden />
      </Popover.Trigger>
      <Popover.Content
        aria-label={`What stood in ${props.field.label}`}
        align="end"
        className={`${menuLook} max-h-96 w-96 max-w-[90vw] overflow-y-auto p-4`}
      >
        <Entries {...props} />
      </Popover.Content>
    </Popover.Root>
  );
}

function Entries({ client, project, field }: { client: string; project: string | null; field: Schemas["Field"] }) {
  const history = useQuery(
    ask(["value-history", client, project, field.key], () =>
      api.GET("/api/clients/{id}/values/{field}", {
        params: { path: { id: client, field: field.key }, query: project ? { project } : {} },
      }),
    ),
  );
  return (
    <>
      <h2 className="mb-2 text-base">{field.label}</h2>
      <Failure error={history.error} />
      {history.isPending && <Skeleton rows={2} />}
      <ol className="grid gap-2.5">
        {history.data?.map((one, index) => (
          <li key={index}>
            <span className="block whitespace-pre-wrap wrap-anywhere">
              {one.words || <span className="text-slate">emptied</span>}
            </span>
            <span className="block text-note text-slate" title={one.exactly}>
              {one.source}, {one.at}
              {one.asked && <span className="block">Asked as “{one.asked}”</span>}
            </span>
          </li>
        ))}
      </ol>
    </>
  );
}
