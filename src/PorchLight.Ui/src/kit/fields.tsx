import {
  useLayoutEffect,
  useRef,
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
} from "react";

/** How a control looks that is as wide as what it says. */
export const controlLook =
  "rounded-soft border border-edge bg-card px-2.5 py-1.5 text-ink aria-invalid:border-2 aria-invalid:border-brick";

/** How a control looks that takes the whole line. */
export const boxLook = `w-full ${controlLook}`;

export interface FieldWords {
  label: string;
  /** Help text, between label and field. */
  help?: string;
  /** What has to be put right. */
  error?: string;
}

/** A label, the words that belong to it, and the field itself. */
export function Labelled({ label, help, error, children }: FieldWords & { children: ReactNode }) {
  return (
    <label className="block">
      <span className="block font-semibold">{label}</span>
      {help && <span className="block text-slate">{help}</span>}
      <span className="mt-1 block">{children}</span>
      {error && <span className="mt-1 block font-semibold text-brick">{error}</span>}
    </label>
  );
}

export function TextBox({
  label,
  help,
  error,
  className = "",
  ...rest
}: FieldWords & InputHTMLAttributes<HTMLInputElement>) {
  return (
    <Labelled label={label} help={help} error={error}>
      <input className={`${boxLook} ${className}`} aria-invalid={error ? true : undefined} {...rest} />
    </Labelled>
  );
}

export function SelectBox({
  label,
  help,
  error,
  className = "",
  ...rest
}: FieldWords & SelectHTMLAttributes<HTMLSelectElement>) {
  return (
    <Labelled label={label} help={help} error={error}>
      <select className={`${boxLook} ${className}`} aria-invalid={error ? true : undefined} {...rest} />
    </Labelled>
  );
}

/** A box to tick, with its words behind it. */
export function CheckBox(props: { label: string; help?: string; checked: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="mt-2 grid grid-cols-[auto_minmax(0,1fr)] gap-x-2.5">
      <input
        type="checkbox"
        className="mt-0.5 size-[1.15rem] accent-dusk"
        checked={props.checked}
        onChange={(e) => props.onChange(e.target.checked)}
      />
      <span>{props.label}</span>
      {props.help && <span className="col-start-2 text-slate">{props.help}</span>}
    </label>
  );
}

/** A text area that is as high as its text. */
export function GrowingText({ className = "", value, ...rest }: TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const area = useRef<HTMLTextAreaElement>(null);
  useLayoutEffect(() => {
    if (!area.current) return;
    area.current.style.height = "auto";
    area.current.style.height = `${area.current.scrollHeight + 2}px`;
  }, [value]);
  return (
    <textarea
      ref={area}
      rows={1}
      value={value}
      className={`block resize-none overflow-hidden ${className}`}
      {...rest}
    />
  );
}
