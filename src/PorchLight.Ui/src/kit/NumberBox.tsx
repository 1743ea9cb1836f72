import { useState, type InputHTMLAttributes } from "react";
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
  const [typed, setTyped] = useState<{ text: string; value: number | null } | null>(null);
  const text =
    typed && typed.value === (value ?? null) ? typed.text : value === null || value === undefined ? "" : String(value);
  return (
    <input
      inputMode={whole ? "numeric" : "decimal"}
      autoComplete="off"
      className={`${controlLook} ${className} tabular-nums`}
      value={text}
      onChange={(e) => {
        const number = read(e.target.value);
        const next = number !== null && whole ? Math.trunc(number) : number;
        setTyped({ text: e.target.value, value: next });
        onChange(next);
      }}
      onBlur={() => setTyped(null)}
      {...rest}
    />
  );
}
