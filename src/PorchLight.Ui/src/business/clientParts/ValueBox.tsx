import { DayInput } from "../../kit/DayBox";
import { useRef, type ReactNode } from "react";
import { X } from "lucide-react";
import { useMutation } from "@tanstack/react-query";
import type { Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { boxLook, controlLook, GrowingText } from "../../kit/fields";
import { NumberBox } from "../../kit/NumberBox";
import { Failure } from "../../kit/states";
import { useSession } from "../shell/session";
import { uploadFile } from "../../api/uploadFile";
import { useSendKey } from "../../api/useSendKey";

type Answer = Schemas["Answer"];
type Named<K extends Answer["kind"]> = Extract<Answer, { kind: K }>;
type Kind = Schemas["FieldKind"];

/** What a box needs to know of a field, or of a column of one. */
interface Shape {
  label: string;
  kind: Kind;
  options?: string[];
  columns?: Schemas["FieldColumn"][];
}

interface Props {
  field: Shape;
  value: Answer | null;
  onChange: (value: Answer | null) => void;
  /** What a screen reader calls it; the field's own name by itself. */
  label?: string;
  invalid?: boolean;
}

const text = (words: string): Answer | null => (words ? { kind: "text", text: words } : null);
const wordsOf = (value: Answer | null) => (value?.kind === "text" ? value.text : "");
const as = <K extends Answer["kind"]>(value: Answer | null, kind: K): Named<K> | null =>
  value?.kind === kind ? (value as Named<K>) : null;

/** A value of a field, to be written by somebody of the business. A kind that is added to the schema has to be added here. */
export function ValueBox(props: Props): ReactNode {
  const { field, value, onChange, label = field.label, invalid } = props;
  const { currency } = useSession();
  const common = { "aria-label": label, "aria-invalid": invalid || undefined };
  const line = (type = "text") => (
    <input
      {...common}
      type={type}
      className={boxLook}
      value={wordsOf(value)}
      onChange={(e) => onChange(text(e.target.value))}
    />
  );
  const boxes: { [K in Kind]: () => ReactNode } = {
    text: () => line(),
    email: () => line("email"),
    webAddress: () => line("url"),
    longText: () => (
      <GrowingText
        {...common}
        className={boxLook}
        value={wordsOf(value)}
        onChange={(e) => onChange(text(e.target.value))}
      />
    ),
    phone: () => (
      <input
        {...common}
        type="tel"
        className={boxLook}
        value={as(value, "phone")?.typed ?? ""}
        onChange={(e) => onChange(e.target.value ? { kind: "phone", typed: e.target.value, localOnly: false } : null)}
      />
    ),
    number: () => (
      <NumberBox
        {...common}
        placeholder={as(value, "band")?.label}
        value={as(value, "number")?.value}
        onChange={(number) => onChange(number === null ? null : { kind: "number", value: number })}
      />
    ),
    money: () => (
      <span className="inline-flex items-center gap-2">
        <NumberBox
          {...common}
          className="w-40"
          placeholder={as(value, "band")?.label}
          value={as(value, "money")?.amount}
          onChange={(amount) => onChange(amount === null ? null : { kind: "money", amount, currency: currency ?? "" })}
        />
        <span>{currency}</span>
      </span>
    ),
    date: () => (
      <DayInput
        {...common}
        value={as(value, "date")?.date}
        onChange={(date) => onChange(date ? { kind: "date", date } : null)}
      />
    ),
    yesNo: () => (
      <select
        {...common}
        className={controlLook}
        value={value?.kind === "yesNo" ? (value.yes ? "yes" : "no") : ""}
        onChange={(e) => onChange(e.target.value ? { kind: "yesNo", yes: e.target.value === "yes" } : null)}
      >
        <option value="">not known</option>
        <option value="yes">Yes</option>
        <option value="no">No</option>
      </select>
    ),
    oneOf: () => (
      <select {...common} className={boxLook} value={wordsOf(value)} onChange={(e) => onChange(text(e.target.value))}>
        <option value="">not known</option>
        {offered(field.options ?? [], [wordsOf(value)]).map((one) => (
          <option key={one}>{one}</option>
        ))}
      </select>
    ),
    severalOf: () => {
      const chosen = as(value, "texts")?.texts ?? [];
      return (
        <span role="group" aria-label={label} className="flex flex-wrap gap-1.5">
          {offered(field.options ?? [], chosen).map((one) => {
            const on = chosen.includes(one);
            return (
              <button
                key={one}
                type="button"
                aria-pressed={on}
                className={`rounded-soft border px-2.5 py-1 ${on ? "border-dusk bg-dusk text-card" : "border-edge bg-card"}`}
                onClick={() => {
                  const texts = on ? chosen.filter((other) => other !== one) : [...chosen, one];
                  onChange(texts.length > 0 ? { kind: "texts", texts } : null);
                }}
              >
                {one}
              </button>
            );
          })}
        </span>
      );
    },
    personName: () => {
      const name = as(value, "personName") ?? { kind: "personName" as const, given: "", family: "" };
      const set = (part: Partial<typeof name>) => {
        const next = { ...name, ...part };
        onChange(next.given || next.family ? next : null);
      };
      return (
        <span className="grid gap-2 sm:grid-cols-2">
          <input
            {...common}
            aria-label={`${label}, first name`}
            placeholder="First name"
            className={boxLook}
            value={name.given}
            onChange={(e) => set({ given: e.target.value })}
          />
          <input
            {...common}
            aria-label={`${label}, family name`}
            placeholder="Family name"
            className={boxLook}
            value={name.family}
            onChange={(e) => set({ family: e.target.value })}
          />
        </span>
      );
    },
    address: () => <AddressBox {...props} label={label} />,
    files: () => <FilesBox {...props} label={label} />,
    rows: () => <RowsBox {...props} label={label} />,
  };
  return boxes[field.kind]();
}

/** What can be chosen, with what is chosen already and is not offered any more. */
const offered = (options: string[], chosen: string[]) => [
  ...options,
  ...chosen.filter((one) => one && !options.includes(one)),
];

const addressParts = [
  ["street", "Street and number"],
  ["unit", "Flat or floor"],
  ["city", "Town"],
  ["postalCode", "Postal code"],
  ["region", "County or region"],
  ["country", "Country"],
] as const;

function AddressBox({ value, onChange, label, invalid }: Props) {
  const address = as(value, "address");
  return (
    <span className="grid gap-2 sm:grid-cols-2">
      {addressParts.map(([part, words]) => (
        <input
          key={part}
          aria-label={`${label}, ${words.toLowerCase()}`}
          aria-invalid={invalid || undefined}
          placeholder={words}
          className={boxLook}
          value={address?.[part] ?? ""}
          onChange={(e) => {
            const empty = { street: null, unit: null, city: null, postalCode: null, region: null, country: null };
            const next = { kind: "address" as const, ...empty, ...address, [part]: e.target.value || null };
            onChange(addressParts.some(([one]) => next[one]) ? next : null);
          }}
        />
      ))}
    </span>
  );
}

function FilesBox({ value, onChange, label }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const sendKey = useSendKey();
  const files = as(value, "files")?.files ?? [];
  const set = (next: typeof files) => onChange(next.length > 0 ? { kind: "files", files: next } : null);
  const upload = useMutation({
    mutationFn: (file: File) => uploadFile(file, sendKey.for([file.name, file.size, file.lastModified])),
    onSuccess: (file) => set([...files, { id: file.id, name: file.name, bytes: 0, group: file.group }]),
  });
  return (
    <span className="block">
      {files.map((file) => (
        <span key={file.id} className="flex items-center gap-2">
          <span className="min-w-0 flex-1 truncate">{file.name}</span>
          <button
            type="button"
            aria-label={`Remove: ${file.name}`}
            className="rounded-soft p-1 text-slate hover:text-ink"
            onClick={() => set(files.filter((other) => other.id !== file.id))}
          >
            <X size={16} aria-hidden />
          </button>
        </span>
      ))}
      <Button onClick={() => input.current?.click()} disabled={upload.isPending}>
        {upload.isPending ? "One moment …" : "Add a file"}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={`Upload: ${label}`}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) upload.mutate(file);
        }}
      />
      <Failure error={upload.error} />
    </span>
  );
}

function RowsBox({ field, value, onChange, label }: Props) {
  const columns = field.columns ?? [];
  const rows = as(value, "rows")?.rows ?? [];
  const set = (next: typeof rows) => onChange(next.length > 0 ? { kind: "rows", rows: next } : null);
  return (
    <span role="group" aria-label={label} className="grid gap-2">
      {rows.map((row, index) => (
        <span key={index} className="grid gap-1.5 rounded-soft border border-line p-2">
          {columns.map((column) => (
            <span key={column.key} className="grid items-start gap-x-3 sm:grid-cols-[8rem_minmax(0,1fr)]">
              <span className="text-slate">{column.label}</span>
              <ValueBox
                field={column}
                label={`${column.label}, row ${index + 1}`}
                value={row.answers[column.key] ?? null}
                onChange={(cell) => {
                  const { [column.key]: _, ...others } = row.answers;
                  const answers = cell ? { ...others, [column.key]: cell } : others;
                  set(rows.map((one, at) => (at === index ? { answers } : one)));
                }}
              />
            </span>
          ))}
          <Button
            weight="quiet"
            className="-ml-3 justify-self-start"
            onClick={() => set(rows.filter((_, at) => at !== index))}
          >
            Remove this row
          </Button>
        </span>
      ))}
      <Button className="justify-self-start" onClick={() => set([...rows, { answers: {} }])}>
        Add a row
      </Button>
    </span>
  );
}
