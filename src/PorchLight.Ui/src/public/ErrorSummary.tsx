import { useEffect, useRef } from "react";
import type { Finding } from "../api/problem";

interface Props {
  sentence: string;
  /** What has to be put right on this page, in its order. */
  findings: Finding[];
  /** Rises with every refusal, so that each one takes the focus. */
  refusals: number;
  wordingOf: (place: string) => string;
}

/** Says over the page what has to be put right, and leads there. */
export function ErrorSummary({ sentence, findings, refusals, wordingOf }: Props) {
  const summary = useRef<HTMLDivElement>(null);
  useEffect(() => summary.current?.focus(), [refusals]);
  return (
    <div ref={summary} tabIndex={-1} role="alert" className="mb-6 rounded-soft border-2 border-brick p-3">
      <p className="font-semibold text-brick">{sentence}</p>
      <ul className="mt-1 grid gap-1">
        {findings.map(({ place }) => (
          <li key={place}>
            <a href={`#q-${place}`} className="text-ink underline" onClick={(event) => focusOn(event, place)}>
              {wordingOf(place)}
            </a>
          </li>
        ))}
      </ul>
    </div>
  );
}

function focusOn(event: { preventDefault: () => void }, place: string) {
  event.preventDefault();
  const at = document.getElementById(`q-${place}`);
  (at?.matches("fieldset") ? (at.querySelector<HTMLElement>("input, select, textarea, button") ?? at) : at)?.focus();
}
