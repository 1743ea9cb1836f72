import { createContext, useCallback, useContext, useEffect, useRef, useState, type ReactNode } from "react";
import { sentenceOf } from "../api/problem";
import { Button } from "./Button";

const staysMs = 10_000;

interface NoticeWords {
  words: string;
  /** Takes back what was just done; the button stays for ten seconds. */
  undo?: () => Promise<unknown>;
}

const NoticeContext = createContext<(notice: NoticeWords) => void>(() => {});

/** Says what was just done, at the foot of the screen, with a way back. */
export const useNotice = () => useContext(NoticeContext);

export function NoticeBoard({ children }: { children: ReactNode }) {
  const [notice, setNotice] = useState<NoticeWords | null>(null);
  const board = useRef<HTMLDivElement>(null);
  const cameFrom = useRef<HTMLElement | null>(null);
  // Whoever is at the button that goes away is put back where they came from.
  const show = useCallback((next: NoticeWords | null) => {
    if (board.current?.contains(document.activeElement))
      (cameFrom.current?.isConnected ? cameFrom.current : document.getElementById("content"))?.focus();
    setNotice(next);
  }, []);
  useEffect(() => {
    if (!notice) return;
    const timer = setTimeout(() => show(null), staysMs);
    return () => clearTimeout(timer);
  }, [notice, show]);

  const undo = () => {
    if (!notice?.undo) return;
    show(null);
    notice.undo().catch((error: unknown) => show({ words: sentenceOf(error) }));
  };
  return (
    <NoticeContext value={show}>
      {children}
      <div
        ref={board}
        role="status"
        onFocus={(event) => (cameFrom.current = event.relatedTarget as HTMLElement | null)}
        className="pointer-events-none fixed inset-x-0 bottom-5 z-30 flex justify-center px-4"
      >
        {notice && (
          <p className="pointer-events-auto flex items-center gap-4 rounded-soft border border-edge bg-card px-4 py-2.5 shadow-panel">
            {notice.words}
            {notice.undo && <Button onClick={undo}>Undo</Button>}
          </p>
        )}
      </div>
    </NoticeContext>
  );
}
