import {
  createContext,
  useContext,
  useLayoutEffect,
  useRef,
  useState,
  type ReactNode,
  type CSSProperties,
} from "react";
import { defaultRangeExtractor, useVirtualizer } from "@tanstack/react-virtual";
import { Link } from "react-router";
import { useListAddress } from "./listAddress";

// So many rows are all there, for whoever searches the page or goes through it by ear; only of more some are left out.
const fewEnough = 120;
const usualHeight = 45;

interface RowPosition {
  "data-index": number;
  ref: (line: HTMLLIElement | null) => void;
  "aria-setsize": number;
  "aria-posinset": number;
}

const RowPositionContext = createContext<RowPosition | null>(null);

interface RowsProps<T> {
  rows: T[];
  keyOf: (row: T) => string;
  /** The row whose panel is open, by its key: it is there wherever one has scrolled to. */
  open?: string;
  /** Draws a row: a RowItem, or a Row. */
  children: (row: T) => ReactNode;
}

/** A dense list of rows. Of a long one only those are drawn that can be seen, and some around them. */
export function Rows<T>(props: RowsProps<T>) {
  return props.rows.length > fewEnough ? (
    <SomeRows {...props} />
  ) : (
    <ul className={rowsLook}>
      {props.rows.map((row) => (
        <RowPositionContext key={props.keyOf(row)} value={null}>
          {props.children(row)}
        </RowPositionContext>
      ))}
    </ul>
  );
}

const rowsLook = "overflow-hidden rounded-soft bg-card shadow-soft";

function SomeRows<T>({ rows, keyOf, open, children }: RowsProps<T>) {
  const list = useRef<HTMLUListElement>(null);
  const [within, setWithin] = useState<{ scroller: HTMLElement; begin: number } | null>(null);
  // Whatever grows above moves where the rows begin, so it is looked at each time; the same place is not set again.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  useLayoutEffect(() => {
    const scroller = scrollerOf(list.current!);
    const begin = list.current!.getBoundingClientRect().top - scroller.getBoundingClientRect().top + scroller.scrollTop;
    if (within?.scroller !== scroller || Math.abs(within.begin - begin) > 1) setWithin({ scroller, begin });
  });
  const opened = rows.findIndex((row) => keyOf(row) === open);
  // eslint-disable-next-line react-hooks/incompatible-library -- what it gives is used here and handed to nobody who remembers it
  const virtual = useVirtualizer({
    count: rows.length,
    enabled: within !== null,
    // Whoever had scrolled down before there were so many stays where they are.
    initialOffset: () => within?.scroller.scrollTop ?? 0,
    getScrollElement: () => within?.scroller ?? null,
    estimateSize: () => usualHeight,
    getItemKey: (index) => keyOf(rows[index]!),
    scrollMargin: within?.begin ?? 0,
    overscan: 12,
    rangeExtractor: (range) => {
      const focused = Number(list.current?.querySelector("li:focus-within")?.getAttribute("data-index") ?? -1);
      const kept = [opened, focused].filter((index) => index >= 0 && index < rows.length);
      return [...new Set([...defaultRangeExtractor(range), ...kept])].sort((a, b) => a - b);
    },
  });
  const shown = virtual.getVirtualItems();
  const start = (index: number) => shown[index]!.start - virtual.options.scrollMargin;
  return (
    <ul
      ref={list}
      className={`relative ${rowsLook}`}
      style={{ height: within ? virtual.getTotalSize() : rows.length * usualHeight }}
    >
      {shown.map((item, index) => (
        <RowPositionContext
          key={item.key}
          value={{
            "data-index": item.index,
            ref: virtual.measureElement,
            "aria-setsize": rows.length,
            "aria-posinset": item.index + 1,
          }}
        >
          <RowOffset value={start(index)}>{children(rows[item.index]!)}</RowOffset>
        </RowPositionContext>
      ))}
    </ul>
  );
}

const RowOffset = createContext(0);

const scrollerOf = (element: HTMLElement): HTMLElement => {
  for (let at = element.parentElement; at; at = at.parentElement)
    if (/auto|scroll/.test(getComputedStyle(at).overflowY)) return at;
  return document.documentElement;
};

/** The line of a row. */
export function RowItem({ className, children }: { className: string; children: ReactNode }) {
  const place = useContext(RowPositionContext);
  const offset = useContext(RowOffset);
  return (
    <li
      {...place}
      style={
        place ? { position: "absolute", top: 0, left: 0, right: 0, transform: `translateY(${offset}px)` } : undefined
      }
      className={`border-b border-line last:border-0 ${className}`}
    >
      {children}
    </li>
  );
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

/** A row that opens a panel. */
export function Row({ to, open, glow = false, columns, template, before, action, children }: Props) {
  const withList = useListAddress();
  return (
    <RowItem
      className={`flex min-h-11 flex-wrap items-center sm:flex-nowrap ${glow ? "bg-glow" : ""} ${open ? "shadow-[inset_4px_0_0_var(--color-dusk)]" : ""}`}
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
    </RowItem>
  );
}
