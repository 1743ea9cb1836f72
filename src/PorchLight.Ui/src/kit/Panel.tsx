import { useContext, useEffect, useRef, type ReactNode, type Ref } from "react";
import { Maximize2, Minimize2, X } from "lucide-react";
import { Link } from "react-router";
import type { Schemas } from "../api/problem";
import { Button, buttonLook } from "./Button";
import { useListAddress } from "./listAddress";
import { PanelWidth } from "./PanelWidth";
import { Failure, Skeleton } from "./states";

interface HeadProps {
  title: string;
  /** A sentence below the title. */
  under?: ReactNode;
  /** Where one is once it is closed. */
  home: string;
}

/** What opens beside a list: its head, and what stands in it. */
export const Panel = ({ ref, children, ...head }: HeadProps & { ref?: Ref<HTMLDivElement>; children: ReactNode }) => (
  <div ref={ref} className="@container p-8">
    <PanelHead {...head} />
    {children}
  </div>
);

/** The head of a panel, which takes focus when the panel opens. */
function PanelHead({ title, under, home }: HeadProps) {
  const head = useRef<HTMLHeadingElement>(null);
  const withList = useListAddress();
  const width = useContext(PanelWidth);
  useEffect(() => head.current?.focus({ preventScroll: true }), [title]);
  return (
    <div className="mb-4 flex items-start justify-between gap-4">
      <div className="min-w-0">
        <h1 ref={head} tabIndex={-1} className="text-title outline-none">
          {title}
        </h1>
        {under && <p className="text-slate">{under}</p>}
      </div>
      <span className="flex shrink-0 gap-2">
        {width && (
          <Button className="max-lg:hidden" onClick={() => width.setWide(!width.isWide)}>
            {width.isWide ? <Minimize2 size={16} aria-hidden /> : <Maximize2 size={16} aria-hidden />}
            {width.isWide ? "Beside the list" : "Wide"}
          </Button>
        )}
        <Link to={withList(home)} className={buttonLook("plain")} title="Esc">
          <X size={18} aria-hidden /> Close
        </Link>
      </span>
    </div>
  );
}

/** What stands in a panel until its data is there, or why it is not. */
export const PanelWaiting = ({ title, home, error }: { title: string; home: string; error: unknown }) => (
  <Panel title={title} home={home}>
    {error ? <Failure error={error} /> : <Skeleton rows={6} />}
  </Panel>
);

export function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-6">
      <h2 className="mb-2 text-section">{title}</h2>
      {children}
    </section>
  );
}

/** What happened, newest first; what somebody wrote stands there in their own words. */
export function TimelineList({ entries }: { entries: Schemas["TimelineEntry"][] }) {
  return (
    <ol className="grid gap-1.5 border-l-2 border-line pl-4">
      {entries.map((entry, index) => (
        <li key={index} className="flex flex-wrap justify-between gap-x-4">
          <span className="min-w-0">{entry.sentence}</span>
          <time className="text-slate tabular-nums" title={entry.exactly}>
            {entry.at}
          </time>
          {entry.words && <TheirWords>{entry.words}</TheirWords>}
        </li>
      ))}
    </ol>
  );
}

/** What somebody wrote or said, as they did. */
export function TheirWords({ children }: { children: string }) {
  return (
    <blockquote className="my-1 w-full border-l-4 border-edge bg-glow px-3 py-2 whitespace-pre-wrap">
      {children}
    </blockquote>
  );
}
