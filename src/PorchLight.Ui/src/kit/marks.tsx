import type { ReactNode } from "react";
import type { Schemas } from "../api/problem";

/** A lamp, lit or unlit. */
export function LightMark({ lit, size = 22 }: { lit: boolean; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" className="shrink-0">
      <path d="M12 2v3.5" stroke="var(--color-dusk)" strokeWidth="1.8" strokeLinecap="round" />
      <path
        d="M8 5.500h8l2 7.500h-12z"
        fill={lit ? "var(--color-lamp)" : "var(--color-card)"}
        stroke="var(--color-dusk)"
        strokeWidth="1.600"
        strokeLinejoin="round"
      />
      {lit && (
        <path
          d="M8.500 16.500l-1.200 4M12 16.500v4.500M15.500 16.500l1.200 4"
          stroke="var(--color-dusk)"
          strokeWidth="1.600"
          strokeLinecap="round"
        />
      )}
    </svg>
  );
}

/** A door standing open, ajar or shut, with its word beside it; where nothing was sorted, that. */
export function FitMark({
  fit: label,
  size = 20,
  word = true,
}: {
  fit: Schemas["FitLabel"] | null;
  size?: number;
  word?: boolean;
}) {
  if (label === null) return <span className="text-slate">not sorted</span>;
  const { fit, words } = label;
  return (
    <span className="inline-flex items-center gap-2 whitespace-nowrap">
      <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden="true" className="shrink-0 text-ink">
        <path d="M3 21.500h18" stroke="currentColor" strokeWidth="1.500" strokeLinecap="round" />
        <path d="M6 21.500v-19h12v19" fill="none" stroke="currentColor" strokeWidth="1.800" />
        {fit === "notNow" && (
          <>
            <path d="M7.500 4h9v17.500h-9z" fill="currentColor" />
            <circle cx="14.300" cy="13" r="1.200" fill="var(--color-card)" />
          </>
        )}
        {fit === "talkFirst" && (
          <>
            <path d="M6 2.500l8 2.500v16.500h-8z" fill="currentColor" />
            <circle cx="11.800" cy="13" r="1.100" fill="var(--color-card)" />
          </>
        )}
        {fit === "comeIn" && (
          <path
            d="M6 2.500l-5 3.500v18l5-2.500z"
            fill="currentColor"
            stroke="currentColor"
            strokeWidth="1.200"
            strokeLinejoin="round"
          />
        )}
      </svg>
      {word && <span>{words}</span>}
    </span>
  );
}

/** A small mark in the margin, whose sentence is said on hovering and to screen readers. */
export function MarginMark({ label, children }: { label: string; children: ReactNode }) {
  return (
    <span role="img" aria-label={label} title={label}>
      {children}
    </span>
  );
}
