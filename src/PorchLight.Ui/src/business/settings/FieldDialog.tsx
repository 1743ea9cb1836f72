import { Dialog, DialogClose } from "../../kit/Dialog";
import { useState, type FormEvent } from "react";
import { X } from "lucide-react";
import { useMutation } from "@tanstack/react-query";
import { findingsOf, orProblem, Problem, type Clash, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { boxLook, CheckBox, controlLook, GrowingText, Labelled, SelectBox, TextBox } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { Clashes } from "../saving/Clashes";
import { settle } from "../saving/merge";
import { columnKinds, kinds, kindWords } from "./fieldKinds";

type Field = Schemas["Field"];

export const newField = (): Field => ({
  key: "",
  label: "",
  kind: "text",
  help: "",
  clientKeepsIt: false,
  atAGlance: false,
  archived: false,
  options: [],
  columns: [],
});

interface Props {
  field: Field;
  scope: Schemas["RecordScope"];
  isNew: boolean;
  /** Whether every business has it; its kind stays. */
  isBuiltIn: boolean;
  onClose: () => void;
}

const names: Record<string, string> = {
  label: "Name",
  help: "Help text",
  kind: "What stands in it",
  options: "Words to choose from",
  columns: "Columns",
  clientKeepsIt: "The client keeps it up to date",
  atAGlance: "Shown at a glance",
  archived: "Put away",
};

/** A field, new or as it is. With another kind it is said first what would not fit. */
export function FieldDialog({ field, scope, isNew, isBuiltIn, onClose }: Props) {
  const say = useNotice();
  const [edit, setEdit] = useState({ was: field, now: field });
  const [clashes, setClashes] = useState<Clash[]>([]);
  const { now } = edit;
  const set = (part: Partial<Field>) => setEdit((before) => ({ ...before, now: { ...before.now, ...part } }));
  const done = (words: string) => {
    say({ words });
    onClose();
  };
  const loses = useMutation({
    mutationFn: (wanted: Field) =>
      orProblem(api.POST("/api/fields/{key}/other-kind", { params: { path: { key: field.key } }, body: wanted })),
  });
  const save = useMutation({
    mutationFn: ({ edit, losesValues }: { edit: { was: Field; now: Field }; losesValues: boolean }) =>
      isNew
        ? orProblem(api.POST("/api/fields", { body: { scope, field: edit.now } }))
        : orProblem(
            api.PUT("/api/fields/{key}", { params: { path: { key: field.key } }, body: { edit, losesValues } }),
          ),
    onSuccess: (stored) => done(isNew ? `“${stored.label}” is a field now.` : "Saved."),
    onError: (error, { edit }) => {
      const found = error instanceof Problem ? error.clashes : [];
      setClashes(found);
      // Some values do not fit another kind: which, is said before anything is done.
      if (found.length === 0 && error instanceof Problem && error.status === 409) loses.mutate(edit.now);
    },
  });
  const findings = findingsOf(save.error);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!save.isPending) save.mutate({ edit, losesValues: false });
  };
  const archive = (archived: boolean) =>
    save.mutate({ edit: { was: edit.was, now: { ...edit.was, archived } }, losesValues: false });
  return (
    <Dialog
      open
      onOpenChange={(on) => !on && onClose()}
      title={isNew ? (scope === "client" ? "A new field of clients" : "A new field of projects") : field.label}
    >
      <form noValidate className="grid gap-3" onSubmit={submit}>
        <TextBox
          label="Name"
          value={now.label}
          error={findings.get("label")}
          onChange={(e) => set({ label: e.target.value })}
        />
        <SelectBox
          label="What stands in it"
          help={isBuiltIn ? "This field comes with Porch Light and keeps its kind." : undefined}
          disabled={isBuiltIn}
          value={now.kind}
          error={findings.get("kind")}
          onChange={(e) => {
            const kind = e.target.value as Field["kind"];
            const hasOptions = kind === "oneOf" || kind === "severalOf";
            set({ kind, options: hasOptions ? now.options : [], columns: kind === "rows" ? now.columns : [] });
          }}
        >
          {kinds.map((kind) => (
            <option key={kind} value={kind}>
              {kindWords[kind]}
            </option>
          ))}
        </SelectBox>
        {(now.kind === "oneOf" || now.kind === "severalOf") && (
          <Labelled label="Words to choose from" help="One a line." error={findings.get("options")}>
            <GrowingText
              className={`${boxLook} min-h-20`}
              value={(now.options ?? []).join("\n")}
              onChange={(e) => set({ options: e.target.value === "" ? [] : e.target.value.split("\n") })}
            />
          </Labelled>
        )}
        {now.kind === "rows" && (
          <Columns
            columns={now.columns ?? []}
            error={findings.get("columns")}
            onChange={(columns) => set({ columns })}
          />
        )}
        <TextBox
          label="Help text"
          help="For whoever fills it in."
          value={now.help ?? ""}
          error={findings.get("help")}
          onChange={(e) => set({ help: e.target.value })}
        />
        <div>
          <CheckBox
            label="Shown at a glance"
            checked={now.atAGlance ?? false}
            onChange={(atAGlance) => set({ atAGlance })}
          />
          <CheckBox
            label="The client keeps it up to date"
            help="What they answer through their own personal link replaces this. Otherwise you settle any differences."
            checked={now.clientKeepsIt ?? false}
            onChange={(clientKeepsIt) => set({ clientKeepsIt })}
          />
        </div>
        {findings.get("archived") && <p className="font-semibold text-brick">{findings.get("archived")}</p>}
        <Clashes
          clashes={clashes}
          nameOf={(place) => names[place] ?? place}
          onChoose={(clash, keep) => {
            const next = settle(edit, clash, keep);
            const left = clashes.filter((one) => one !== clash);
            setEdit(next);
            setClashes(left);
            if (left.length === 0) save.mutate({ edit: next, losesValues: false });
          }}
        />
        {loses.data ? (
          <Lost
            lost={loses.data}
            onGoOn={() => save.mutate({ edit, losesValues: true })}
            onStop={() => {
              loses.reset();
              save.reset();
            }}
          />
        ) : (
          findings.size === 0 && clashes.length === 0 && <Failure error={loses.error ?? save.error} />
        )}
        <span className="flex flex-wrap gap-2">
          <Button weight="main" type="submit" disabled={save.isPending || clashes.length > 0}>
            {isNew ? "Make the field" : "Save"}
          </Button>
          <DialogClose className={buttonLook("quiet")}>Cancel</DialogClose>
          {!isNew && (
            <Button
              weight="quiet"
              className="ml-auto"
              disabled={save.isPending}
              onClick={() => archive(!field.archived)}
            >
              {field.archived ? "Bring it back" : "Put it away"}
            </Button>
          )}
        </span>
      </form>
    </Dialog>
  );
}

function Lost(props: { lost: Schemas["KindChangeView"]; onGoOn: () => void; onStop: () => void }) {
  const { lost } = props;
  return (
    <div role="alert" className="rounded-soft border-2 border-dusk bg-glow p-4">
      <p className="font-semibold">
        {lost.lost === 1 ? "One value does not fit" : `${lost.lost} values do not fit`}; {lost.fit} can be kept.
      </p>
      <ul className="my-2 max-h-40 overflow-y-auto">
        {lost.examples.map((one, index) => (
          <li key={index}>
            {one.client}: <strong>{one.words}</strong>
          </li>
        ))}
      </ul>
      <p className="mb-2">Values that do not fit are cleared. They stay in the field’s history.</p>
      <span className="flex gap-2">
        <Button onClick={props.onGoOn}>Change it anyway</Button>
        <Button weight="quiet" onClick={props.onStop}>
          Leave it as it is
        </Button>
      </span>
    </div>
  );
}

type Column = Schemas["FieldColumn"];

function Columns(props: { columns: Column[]; error?: string; onChange: (columns: Column[]) => void }) {
  const { columns, onChange } = props;
  const set = (index: number, part: Partial<Column>) =>
    onChange(columns.map((one, at) => (at === index ? { ...one, ...part } : one)));
  return (
    <fieldset>
      <legend className="font-semibold">Columns</legend>
      <ul className="grid gap-2">
        {columns.map((column, index) => (
          <li key={index} className="flex gap-2">
            <input
              aria-label={`Column ${index + 1}`}
              className={boxLook}
              value={column.label}
              onChange={(e) => set(index, { label: e.target.value })}
            />
            <select
              aria-label={`What stands in column ${index + 1}`}
              className={controlLook}
              value={column.kind}
              onChange={(e) => set(index, { kind: e.target.value as Column["kind"] })}
            >
              {columnKinds.map((kind) => (
                <option key={kind} value={kind}>
                  {kindWords[kind]}
                </option>
              ))}
            </select>
            <button
              type="button"
              aria-label={`Remove column ${index + 1}`}
              className="rounded-soft p-1.5 text-slate hover:text-brick"
              onClick={() => onChange(columns.filter((_, at) => at !== index))}
            >
              <X size={18} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      {props.error && <p className="mt-1 font-semibold text-brick">{props.error}</p>}
      <Button className="mt-2" onClick={() => onChange([...columns, { key: "", label: "", kind: "text" }])}>
        Another column
      </Button>
    </fieldset>
  );
}
