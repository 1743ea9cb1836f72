import { useEffect, useRef } from "react";
import type { Clash } from "../../api/problem";
import { Button } from "../../kit/Button";

interface Props {
  clashes: Clash[];
  /** What a place is called on this screen. */
  nameOf: (place: string) => string;
  /** A value in words, where the screen has better ones than the value itself. */
  say?: (value: unknown) => string | undefined;
  onChoose: (clash: Clash, keep: "theirs" | "yours") => void;
}

/** What was changed here and in another window at once, side by side, for a person to choose. */
export function Clashes({ clashes, nameOf, say, onChoose }: Props) {
  const place = useRef<HTMLElement>(null);
  // The button that was pressed is gone with its question: the next question has the focus, or the screen it was about.
  const before = useRef(clashes.length);
  useEffect(() => {
    if (clashes.length < before.current)
      (place.current?.querySelector("button") ?? document.getElementById("content"))?.focus();
    before.current = clashes.length;
  }, [clashes.length]);
  if (clashes.length === 0) return null;
  return (
    <section
      ref={place}
      role="alert"
      aria-label="Changed in two windows"
      className="my-4 rounded-soft border-2 border-dusk bg-glow p-4"
    >
      <h2 className="text-section">Changed in two windows</h2>
      <p className="mb-3">
        Someone has changed the same words, perhaps you in another window. Nothing is overwritten until you choose.
      </p>
      <ul className="grid gap-4">
        {clashes.map((clash) => (
          <li key={clash.place}>
            <h3 className="mb-1 font-body font-semibold">{nameOf(clash.place)}</h3>
            <div className="grid gap-3 sm:grid-cols-2">
              <Side
                title="Saved now"
                words={say?.(clash.theirs) ?? inWords(clash.theirs)}
                action="Use the saved version"
                onChoose={() => onChoose(clash, "theirs")}
              />
              <Side
                title="Typed here"
                words={say?.(clash.yours) ?? inWords(clash.yours)}
                action="Keep what I typed"
                onChoose={() => onChoose(clash, "yours")}
              />
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface SideProps {
  title: string;
  words: string;
  action: string;
  onChoose: () => void;
}

function Side({ title, words, action, onChoose }: SideProps) {
  return (
    <div className="flex flex-col rounded-soft border border-edge bg-card p-3">
      <p className="text-slate">{title}</p>
      <p className="mb-3 flex-1 wrap-anywhere whitespace-pre-wrap">{words}</p>
      <Button className="self-start" onClick={onChoose}>
        {action}
      </Button>
    </div>
  );
}

function inWords(value: unknown): string {
  if (value === null || value === undefined || value === "") return "(empty)";
  return typeof value === "string" ? value : JSON.stringify(value);
}
