import { useState } from "react";
import { Button } from "./Button";
import { useFocusBack } from "./useFocusBack";

interface Props {
  /** What the button says that asks: "Remove". */
  words: string;
  /** What it is called where its words alone do not say what it is about. */
  label?: string;
  /** What is asked first: "Remove it, with its log?" */
  question?: string;
  /** What the button says that does it. */
  act: string;
  keep?: string;
  busy: boolean;
  onAct: () => void;
}

const begin = (button: HTMLButtonElement | null) => button?.focus();

/** A button for what cannot be taken back: it asks first, in its own place, and begins at the answer that changes nothing. */
export function AskFirst({ words, label, question, act, keep = "Keep it", busy, onAct }: Props) {
  const [isAsked, setAsked] = useState(false);
  const button = useFocusBack(isAsked);
  return isAsked ? (
    <span className="inline-flex flex-wrap items-center gap-2">
      {question}
      <Button className="border-brick text-brick" disabled={busy} onClick={onAct}>
        {act}
      </Button>
      <Button weight="quiet" ref={begin} onClick={() => setAsked(false)}>
        {keep}
      </Button>
    </span>
  ) : (
    <Button ref={button} weight="quiet" aria-label={label} disabled={busy} onClick={() => setAsked(true)}>
      {words}
    </Button>
  );
}
