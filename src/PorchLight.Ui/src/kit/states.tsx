import { useEffect, useRef, type ReactNode } from "react";
import { sentenceOf } from "../api/problem";

/** What stands where something is still being fetched. */
export function Skeleton({ rows = 4 }: { rows?: number }) {
  return (
    <div role="status" aria-label="One moment" className="grid gap-px">
      {Array.from({ length: rows }, (_, index) => (
        <div key={index} className="h-11 animate-pulse rounded-soft bg-line/60" />
      ))}
    </div>
  );
}

/** A failure in words, beside the place it belongs to. */
export function Failure({ error, takesFocus = false }: { error: unknown; takesFocus?: boolean }) {
  const words = useRef<HTMLParagraphElement>(null);
  useEffect(() => {
    if (error && takesFocus) words.current?.focus();
  }, [error, takesFocus]);
  return error ? (
    <p
      ref={words}
      tabIndex={-1}
      role="alert"
      className="my-2 border-l-4 border-brick pl-3 font-semibold text-brick outline-none"
    >
      {sentenceOf(error)}
    </p>
  ) : null;
}

export function Empty({ children }: { children: ReactNode }) {
  return <p className="rounded-soft bg-card p-5 text-slate shadow-soft">{children}</p>;
}
