import { useRef, useState, type InputHTMLAttributes } from "react";

export interface TypedProps<T> extends Omit<InputHTMLAttributes<HTMLInputElement>, "value" | "onChange"> {
  value: T | null | undefined;
  /** Null when nothing is typed; what cannot be read changes nothing. */
  onChange: (value: T | null) => void;
}

interface Props<T> extends TypedProps<T> {
  /** What is typed, as a value; null where it is none (yet). */
  read: (typed: string) => T | null;
  /** A value as it stands in the box. */
  say: (value: T) => string;
  /** What is said beside the box where what was typed is no value. */
  wrong: (typed: string) => string;
}

/** A box for a value that is typed as words: it leaves what is typed as it is typed ("1." on the way to "1.5" stays) until one goes on. */
export function TypedInput<T>({ value, onChange, read, say, wrong, ...rest }: Props<T>) {
  const [typed, setTyped] = useState<{ text: string; value: T | null; before: T | null } | null>(null);
  const [isLeft, setLeft] = useState(false);
  const now = value ?? null;
  // What is no value changes nothing: the one stays that stood there when one began.
  const start = useRef(now);
  // Who keeps the value it had while there is none ("-" on the way to "-5") leaves what is typed, too.
  const isTyped = typed && (typed.value === now || (typed.value === null && typed.before === now));
  const text = isTyped ? typed.text : now === null ? "" : say(now);
  const isNone = isLeft && text.trim() !== "" && read(text.trim()) === null;
  return (
    <span className="inline-grid">
      <input
        autoComplete="off"
        value={text}
        onChange={(e) => {
          const found = read(e.target.value.trim());
          const next = found === null && e.target.value.trim() !== "" ? start.current : found;
          setTyped({ text: e.target.value, value: next, before: now });
          onChange(next);
        }}
        onFocus={() => {
          setLeft(false);
          if (!isNone) start.current = now;
        }}
        onBlur={() => {
          setLeft(true);
          // What is no value stays to be put right.
          if (text.trim() === "" || read(text.trim()) !== null) setTyped(null);
        }}
        {...rest}
        aria-invalid={isNone || rest["aria-invalid"] || undefined}
      />
      {isNone && (
        <span role="alert" className="font-semibold text-brick">
          {wrong(text.trim())}
        </span>
      )}
    </span>
  );
}
