import type { ReactNode } from "react";

/** A picker with the words of the sentence that stand before it. */
export const SentenceLine = ({ before, children }: { before: string; children: ReactNode }) => (
  <div className="flex flex-wrap items-center gap-2">
    <span>{before}</span>
    {children}
  </div>
);
