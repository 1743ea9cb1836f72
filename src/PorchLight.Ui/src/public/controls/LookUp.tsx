import { useEffect, useState } from "react";
import { Combobox } from "../../kit/Combobox";
import { lookUp } from "../client";
import type { FoundLine } from "../views";
import { useQuestionContext } from "../questionContext";
import { answerOf, box, type ControlProps } from "./control";

const debounceMs = 150;

/** Type a few letters, choose from the list. */
export default function LookUp({ id, place, placeholder, answer, onChange, described }: ControlProps<"lookUp">) {
  const desk = useQuestionContext();
  const chosen = answerOf(answer, "lookUp");
  const [typed, setTyped] = useState<string | null>(null);
  const [found, setFound] = useState<FoundLine[] | null>(null);

  useEffect(() => {
    if (!typed?.trim()) return;
    const abort = new AbortController();
    const timer = setTimeout(() => {
      lookUp(desk, place, typed, abort.signal).then(setFound, () => {}); // The next letter asks again.
    }, debounceMs);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  }, [desk, place, typed]);

  return (
    <Combobox<FoundLine>
      id={id}
      listLabel="What fits"
      items={found}
      keyOf={(line) => line.key}
      wordsOf={(line) => line.columns[0] ?? ""}
      initialWords={chosen?.columns?.[0] ?? chosen?.key ?? ""}
      onType={(words) => {
        setTyped(words);
        if (!words.trim()) setFound(null);
        if (chosen) onChange(undefined);
      }}
      onChoose={({ key, columns }) => onChange({ kind: "lookUp", key, columns })}
      box={{ ...described, "aria-label": undefined, className: box, placeholder: placeholder ?? undefined }}
      rowLook={(isNext) => `min-h-11 cursor-pointer px-3 py-2 ${isNext ? "bg-[var(--brand)] text-card" : ""}`}
      row={(line) => (
        <>
          {line.columns[0]}
          {line.columns.length > 1 && <span className="block text-note">{line.columns.slice(1).join(", ")}</span>}
        </>
      )}
      says={(isOpen) => {
        // What is typed and not chosen is no answer; that is said, and not found out after sending.
        const isUnchosen = !isOpen && !chosen && !!typed?.trim();
        return (
          <>
            <p role="status" className={isUnchosen ? "mt-1 border-l-4 border-edge pl-2" : "sr-only"}>
              {isUnchosen &&
                "This has not been chosen from the list, so it is not sent. Please choose a line, or clear it."}
            </p>
            <p role="status" className={isOpen && found?.length === 0 ? "mt-1 text-slate" : "sr-only"}>
              {isOpen &&
                (found?.length === 0 ? "Nothing on the list fits. Try fewer letters." : `${found?.length} fit.`)}
            </p>
          </>
        );
      }}
    />
  );
}
