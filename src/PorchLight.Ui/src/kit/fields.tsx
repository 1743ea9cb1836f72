import { useLayoutEffect, useRef, type InputHTMLAttributes, type TextareaHTMLAttributes } from "react";

export const boxLook =
  "w-full rounded-soft border border-edge bg-card px-2.5 py-1.5 text-ink aria-invalid:border-2 aria-invalid:border-brick";

export function TextBox({
  label,
  error,
  className = "",
  ...rest
}: { label: string; error?: string } & InputHTMLAttributes<HTMLInputElement>) {
  return (
    <label className="block">
      <span className="mb-1 block font-semibold">{label}</span>
      <input className={`${boxLook} ${className}`} aria-invalid={error ? true : undefined} {...rest} />
      {error && <span className="mt-1 block text-brick">{error}</span>}
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
