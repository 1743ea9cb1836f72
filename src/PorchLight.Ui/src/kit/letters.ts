import { useEffect, useEffectEvent, useSyncExternalStore } from "react";

/** A letter that does something while no text is written. */
export interface Letter {
  letter: string;
  /** What it does, as its button says. */
  words: string;
  run: () => void;
}

let shown: readonly Letter[] = [];
const listeners = new Set<() => void>();
const show = (next: readonly Letter[]) => {
  shown = next;
  for (const listener of listeners) listener();
};

/** Whether a key that is pressed there belongs to what is written or chosen there. */
export const isBusyElsewhere = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.closest("input, textarea, select, [contenteditable], [role=menu], [role=dialog]") !== null;

/** Listens for letters while the part of the screen is there that shows them on its buttons. */
export function useLetters(letters: readonly Letter[]): void {
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    if (event.defaultPrevented || event.altKey || event.ctrlKey || event.metaKey || isBusyElsewhere(event.target))
      return;
    const found = letters.find((one) => one.letter.toLowerCase() === event.key.toLowerCase());
    if (!found) return;
    event.preventDefault();
    found.run();
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onKey(event);
    addEventListener("keydown", listen);
    return () => removeEventListener("keydown", listen);
  }, []);
  const names = letters.map((one) => `${one.letter} ${one.words}`).join("\n");
  const tell = useEffectEvent(() => {
    const mine = letters.map((one) => ({ ...one }));
    show([...shown, ...mine]);
    return mine;
  });
  useEffect(() => {
    const mine = tell();
    return () => show(shown.filter((one) => !mine.includes(one)));
  }, [names]);
}

/** The letters that do something on the screen as it is. */
export const useShownLetters = () =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => shown,
  );
