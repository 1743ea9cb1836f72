import type { ReactNode } from "react";
import { useWorkbench } from "../workbenchContext";

interface Props {
  /** What it is and where it stands: "Question 6, page The wall". */
  title: string;
  /** The key of what the desk shows, for what keeps it from being published. */
  place: string;
  children: ReactNode;
}

/** The frame of every desk: what it shows, what is wrong with it, and its parts. */
export function Sheet({ title, place, children }: Props) {
  const { facts } = useWorkbench();
  const findings = facts.findings.filter((finding) => finding.place === place);
  return (
    <section aria-label={title} className="rounded-soft bg-card p-5 shadow-soft">
      <h2 className="mb-3 font-body text-base font-normal text-slate">{title}</h2>
      {findings.length > 0 && (
        <ul aria-label="What keeps it from being published" className="mb-4 border-l-4 border-brick pl-3 text-brick">
          {findings.map((finding, index) => (
            <li key={index} className="font-semibold">
              {finding.sentence}
            </li>
          ))}
        </ul>
      )}
      {children}
    </section>
  );
}

/** A part of a desk with a heading of its own. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mt-5">
      <h3 className="mb-1.5 text-section">{title}</h3>
      {children}
    </div>
  );
}
