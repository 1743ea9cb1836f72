import { useRef, useState, type InputHTMLAttributes } from "react";
import { controlLook } from "./fields";

interface Props extends Omit<InputHTMLAttributes<HTMLInputElement>, "value" | "onChange"> {
  value: number | null | undefined;
  /** Null when nothing, or no number, is typed. */
  onChange: (value: number | null) => void;
  whole?: boolean;
}

const read = (typed: string): number | null => {
  const text = typed.trim().replace(/\s/g, "").replace(",", ".");
  const number = Number(text);
  return text === "" || Number.isNaN(number) ? null : number;
};

/** A box for a number that leaves what is typed as it is typed: "1." on the way to "1.5" stays. */
export function NumberBox({ value, onChange, whole = false, className = "w-28", ...rest }: Props) {
  const [typed, setTyped] = useState<{ text: string; value: number | null; before: number | null } | null>(null);
  const [isLeft, setLeft] = useState(false);
  const now = value ?? null;
  // What is no number changes nothing: the number stays that stood there when one began.
  const start = useRef(now);
  // Who keeps the number it had while there is none ("-" on the way to "-5") leaves what is typed, too.
  const isTyped = typed && (typed.value === now || (typed.value === null && typed.before === now));
  const text = isTyped ? typed.text : now === null ? "" : String(now);
  const isNone = isLeft && text.trim() !== "" && read(text) === null;
  return (
    <span className="inline-grid">
      <input
        inputMode={whole ? "numeric" : "decimal"}
        autoComplete="off"
        className={`${controlLook} ${className} tabular-nums`}
        value={text}
        onChange={(e) => {
          const number = read(e.target.value);
          const isNumber = number !== null || e.target.value.trim() === "";
          const next = !isNumber ? start.current : number !== null && whole ? Math.trunc(number) : number;
          setTyped({ text: e.target.value, value: next, before: now });
          onChange(next);
        }}
        onFocus={() => {
          setLeft(false);
          if (!isNone) start.current = now;
        }}
        onBlur={() => {
          setLeft(true);
          // What is no number stays to be put right.
          if (text.trim() === "" || read(text) !== null) setTyped(null);
        }}
        {...rest}
        aria-invalid={isNone || rest["aria-invalid"] || undefined}
      />
      {isNone && (
        <span role="alert" className="font-semibold text-brick">
          “{text.trim()}” is not a number. Write a number alone.
        </span>
      )}
    </span>
  );
}
