import { useQuestionContext } from "../questionContext";
import { answerOf, box, type ControlProps, type Described } from "./control";

export function NumberLine({ control, answer, onChange, ...rest }: ControlProps<"number">) {
  return (
    <NumberBox
      {...rest}
      unit={control.unit}
      whole={control.whole}
      value={answerOf(answer, "number")?.value}
      onChange={(value) => onChange(value === undefined ? undefined : { kind: "number", value })}
    />
  );
}

export function MoneyLine({ control, answer, onChange, ...rest }: ControlProps<"money">) {
  return (
    <NumberBox
      {...rest}
      unit={control.currency}
      whole={false}
      value={answerOf(answer, "money")?.amount}
      onChange={(amount) =>
        onChange(amount === undefined ? undefined : { kind: "money", amount, currency: control.currency })
      }
    />
  );
}

/** Each step a button of its own; what the ends mean stands under them. */
export function ScaleLine({ id, control, answer, onChange, described }: ControlProps<"scale">) {
  const steps = Array.from({ length: control.high - control.low + 1 }, (_, index) => control.low + index);
  const chosen = answerOf(answer, "number")?.value;
  const ends = [control.lowLabel, control.highLabel].map((label, end) => (label ? `${id}-end-${end}` : ""));
  const meaning = (step: number) =>
    [step === control.low && ends[0], step === control.high && ends[1]].filter(Boolean).join(" ") || undefined;
  return (
    <div className="w-fit max-w-full">
      <div className="flex flex-wrap gap-1.5">
        {steps.map((step) => (
          <label
            key={step}
            className={`grid size-11 cursor-pointer place-items-center rounded-soft border bg-card tabular-nums has-checked:border-[var(--brand)] has-checked:bg-[var(--brand)] has-checked:text-card has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk ${described["aria-invalid"] ? "border-2 border-brick" : "border-edge"}`}
          >
            <input
              type="radio"
              name={id}
              className="sr-only"
              checked={chosen === step}
              onChange={() => onChange({ kind: "number", value: step })}
              aria-describedby={meaning(step)}
            />
            {step}
          </label>
        ))}
      </div>
      {(control.lowLabel || control.highLabel) && (
        <p className="mt-1 flex justify-between gap-4 text-slate">
          <span id={ends[0] || undefined}>{control.lowLabel}</span>
          <span id={ends[1] || undefined} className="text-right">
            {control.highLabel}
          </span>
        </p>
      )}
    </div>
  );
}

export function WorkedOutValue({ id, place }: ControlProps<"workedOut">) {
  const { step } = useQuestionContext();
  return (
    <output
      id={id}
      className="block rounded-soft border border-transparent bg-[var(--color-mist)] px-3 py-2.5 font-semibold tabular-nums"
    >
      {step.workedOut[place] ?? <span className="font-normal text-slate">not known yet</span>}
    </output>
  );
}

function NumberBox(props: {
  id: string;
  unit: string | null;
  whole: boolean;
  placeholder: string | null;
  value: number | undefined;
  onChange: (value: number | undefined) => void;
  described: Described;
}) {
  return (
    <span className="flex items-center gap-2">
      <input
        id={props.id}
        type="number"
        step="any"
        inputMode={props.whole ? "numeric" : "decimal"}
        className={`${box} max-w-48`}
        placeholder={props.placeholder ?? undefined}
        defaultValue={props.value ?? ""}
        onChange={({ target }) => props.onChange(Number.isNaN(target.valueAsNumber) ? undefined : target.valueAsNumber)}
        {...props.described}
      />
      {props.unit && <span>{props.unit}</span>}
    </span>
  );
}
