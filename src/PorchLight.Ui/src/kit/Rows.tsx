import type { CSSProperties, ReactNode } from "react";
import { Link } from "react-router";
import { useListAddress } from "./listAddress";

/** A dense list of rows that open panels. */
export function Rows({ children }: { children: ReactNode }) {
  return <ul className="overflow-hidden rounded-soft bg-card shadow-soft">{children}</ul>;
}

interface Props {
  to: string;
  /** Whether its panel is open. */
  open: boolean;
  /** Whether it wants somebody. */
  glow?: boolean;
  /** The grid columns, narrow and wide, as utility classes. */
  columns: string;
  /** The columns where there is room, when they are not the same on every list. */
  template?: string;
  /** What stands before the row and is no part of its link. */
  before?: ReactNode;
  /** The one obvious thing to do, beside the row. */
  action?: ReactNode;
  children: ReactNode;
}

export function Row({ to, open, glow = false, columns, template, before, action, children }: Props) {
  const withList = useListAddress();
  return (
    <li
      className={`flex min-h-11 flex-wrap items-center border-b sm:flex-nowrap border-line last:border-0 ${glow ? "bg-glow" : ""} ${open ? "shadow-[inset_4px_0_0_var(--color-dusk)]" : ""}`}
    >
      {before}
      <Link
        data-row
        style={template ? ({ "--columns": template } as CSSProperties) : undefined}
        to={withList(to)}
        aria-current={open ? "true" : undefined}
        className={`grid min-h-11 min-w-0 flex-1 items-center ${before ? "" : "max-sm:basis-full"} gap-x-4 px-4 py-2 -outline-offset-2 hover:bg-mist/70 ${columns}`}
      >
        {children}
      </Link>
      {action && <span className="mr-3 max-sm:mb-2 max-sm:ml-4">{action}</span>}
    </li>
  );
}
