import type { ReactNode } from "react";
import type { Answer, PublicQuestion } from "./client";

interface Props {
  question: PublicQuestion;
  answer: Answer | undefined;
  error: string | undefined;
  onChange: (answer: Answer | undefined) => void;
}

const box =
  "w-full rounded-soft border border-edge bg-card px-3 py-2.5 text-ink aria-invalid:border-2 aria-invalid:border-brick";

/** One question with its help, its control and what is wrong with the answer. */
export function QuestionField({ question, answer, error, onChange }: Props) {
  const id = `q-${question.key}`;
  const described =
    [question.help ? `${id}-help` : "", error ? `${id}-error` : ""].filter(Boolean).join(" ") || undefined;
  const shared = { "aria-describedby": described, "aria-invalid": error ? (true as const) : undefined };
  const isGroup =
    question.kind.kind === "choice" ||
    question.kind.kind === "yesNo" ||
    question.kind.kind === "personName" ||
    question.kind.kind === "address";
  const head = (
    <>
      {question.wording} {!question.required && <span className="font-normal text-slate">optional</span>}
    </>
  );
  const notes = (
    <>
      {question.help && (
        <p id={`${id}-help`} className="mb-1.5 text-slate">
          {question.help}
        </p>
      )}
      {error && (
        <p id={`${id}-error`} className="mb-1.5 border-l-4 border-brick pl-2 font-semibold text-brick">
          {error}
        </p>
      )}
    </>
  );
  const control = <Control id={id} question={question} answer={answer} onChange={onChange} shared={shared} />;

  return isGroup ? (
    <fieldset id={id} tabIndex={-1} className="mb-6 min-w-0 border-0 p-0" aria-describedby={described}>
      <legend className="mb-1 p-0 text-[1.07rem] font-semibold">{head}</legend>
      {notes}
      {control}
    </fieldset>
  ) : (
    <div className="mb-6">
      <label htmlFor={id} className="mb-1 block text-[1.07rem] font-semibold">
        {head}
      </label>
      {notes}
      {control}
    </div>
  );
}

interface ControlProps {
  id: string;
  question: PublicQuestion;
  answer: Answer | undefined;
  onChange: (answer: Answer | undefined) => void;
  shared: { "aria-describedby": string | undefined; "aria-invalid": true | undefined };
}

function Control({ id, question, answer, onChange, shared }: ControlProps) {
  const { kind } = question;
  const text = answer?.kind === "text" ? answer.text : "";
  const setText = (value: string) => onChange(value === "" ? undefined : { kind: "text", text: value });
  switch (kind.kind) {
    case "shortText":
      return (
        <input id={id} type="text" className={box} value={text} onChange={(e) => setText(e.target.value)} {...shared} />
      );
    case "longText":
      return (
        <textarea id={id} rows={5} className={box} value={text} onChange={(e) => setText(e.target.value)} {...shared} />
      );
    case "email":
      return (
        <input
          id={id}
          type="email"
          autoComplete="email"
          inputMode="email"
          className={box}
          value={text}
          onChange={(e) => setText(e.target.value)}
          {...shared}
        />
      );
    case "phone":
      return (
        <input
          id={id}
          type="tel"
          autoComplete="tel"
          className={box}
          value={answer?.kind === "phone" ? answer.typed : ""}
          onChange={(e) => onChange(e.target.value === "" ? undefined : { kind: "phone", typed: e.target.value })}
          {...shared}
        />
      );
    case "number":
    case "money":
      return (
        <NumberBox
          id={id}
          unit={kind.kind === "money" ? kind.currency : (kind.unit ?? null)}
          shared={shared}
          value={answer?.kind === "number" ? answer.value : answer?.kind === "money" ? answer.amount : undefined}
          onChange={(value) =>
            onChange(
              value === undefined
                ? undefined
                : kind.kind === "money"
                  ? { kind: "money", amount: value, currency: kind.currency }
                  : { kind: "number", value },
            )
          }
        />
      );
    case "date":
      return (
        <input
          id={id}
          type="date"
          className={`${box} max-w-60`}
          value={answer?.kind === "date" ? answer.date : ""}
          onChange={(e) => onChange(e.target.value === "" ? undefined : { kind: "date", date: e.target.value })}
          {...shared}
        />
      );
    case "yesNo":
      return (
        <Choices>
          {[true, false].map((yes) => (
            <Choice
              key={String(yes)}
              type="radio"
              name={id}
              label={yes ? "Yes" : "No"}
              invalid={shared["aria-invalid"]}
              checked={answer?.kind === "yesNo" && answer.yes === yes}
              onChange={() => onChange({ kind: "yesNo", yes })}
            />
          ))}
        </Choices>
      );
    case "choice": {
      const chosen = answer?.kind === "choice" ? answer.keys : [];
      const toggle = (key: string, on: boolean) => {
        const keys = kind.several ? (on ? [...chosen, key] : chosen.filter((one) => one !== key)) : [key];
        onChange(keys.length === 0 ? undefined : { kind: "choice", keys });
      };
      return (
        <Choices>
          {kind.options.map((option) => (
            <Choice
              key={option.key}
              type={kind.several ? "checkbox" : "radio"}
              name={id}
              label={option.label}
              invalid={shared["aria-invalid"]}
              checked={chosen.includes(option.key)}
              onChange={(on) => toggle(option.key, on)}
            />
          ))}
        </Choices>
      );
    }
    case "personName": {
      const name = answer?.kind === "personName" ? answer : { given: "", family: "" };
      const set = (given: string, family: string) =>
        onChange(given === "" && family === "" ? undefined : { kind: "personName", given, family });
      return (
        <div className="grid gap-3 sm:grid-cols-2">
          <Part
            label="First name"
            autoComplete="given-name"
            value={name.given}
            onChange={(given) => set(given, name.family)}
            shared={shared}
          />
          <Part
            label="Family name"
            autoComplete="family-name"
            value={name.family}
            onChange={(family) => set(name.given, family)}
            shared={shared}
          />
        </div>
      );
    }
    case "address": {
      const parts: Partial<Record<(typeof addressParts)[number][0], string | null>> =
        answer?.kind === "address" ? answer : {};
      return (
        <div className="grid gap-3 sm:grid-cols-2">
          {addressParts.map(([part, label, autoComplete]) => (
            <Part
              key={part}
              label={label}
              autoComplete={autoComplete}
              value={parts[part] ?? ""}
              shared={shared}
              onChange={(value) =>
                onChange({
                  kind: "address",
                  street: null,
                  unit: null,
                  city: null,
                  region: null,
                  postalCode: null,
                  country: null,
                  ...parts,
                  [part]: value || null,
                })
              }
            />
          ))}
        </div>
      );
    }
  }
}

const addressParts = [
  ["street", "Street and number", "address-line1"],
  ["unit", "Flat, floor or unit", "address-line2"],
  ["city", "Town or city", "address-level2"],
  ["region", "County or region", "address-level1"],
  ["postalCode", "Postal code", "postal-code"],
  ["country", "Country", "country-name"],
] as const;

function Choices({ children }: { children: ReactNode }) {
  return <div className="grid gap-2">{children}</div>;
}

function Choice(props: {
  type: "radio" | "checkbox";
  name: string;
  label: string;
  checked: boolean;
  invalid: true | undefined;
  onChange: (on: boolean) => void;
}) {
  return (
    <label
      className={`flex min-h-11 cursor-pointer items-center gap-3 rounded-soft border bg-card px-3 py-2 has-checked:border-[var(--brand)] has-checked:shadow-[inset_0_0_0_1px_var(--brand)] has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk ${props.invalid ? "border-2 border-brick" : "border-edge"}`}
    >
      <input
        type={props.type}
        name={props.name}
        checked={props.checked}
        onChange={(e) => props.onChange(e.target.checked)}
        className="size-5 shrink-0 accent-[var(--brand)] outline-none"
      />
      <span className="min-w-0">{props.label}</span>
    </label>
  );
}

function Part(props: {
  label: string;
  autoComplete: string;
  value: string;
  onChange: (value: string) => void;
  shared: ControlProps["shared"];
}) {
  return (
    <label className="block">
      <span className="mb-0.5 block text-slate">{props.label}</span>
      <input
        type="text"
        autoComplete={props.autoComplete}
        className={box}
        value={props.value}
        onChange={(e) => props.onChange(e.target.value)}
        {...props.shared}
      />
    </label>
  );
}

function NumberBox(props: {
  id: string;
  unit: string | null;
  value: number | undefined;
  onChange: (value: number | undefined) => void;
  shared: ControlProps["shared"];
}) {
  return (
    <span className="flex items-center gap-2">
      <input
        id={props.id}
        type="number"
        step="any"
        inputMode="decimal"
        className={`${box} max-w-48`}
        defaultValue={props.value ?? ""}
        onChange={(e) => props.onChange(Number.isNaN(e.target.valueAsNumber) ? undefined : e.target.valueAsNumber)}
        {...props.shared}
      />
      {props.unit && <span>{props.unit}</span>}
    </span>
  );
}
