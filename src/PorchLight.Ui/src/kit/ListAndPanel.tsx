import { useEffect, useRef, useState, type ReactNode } from "react";
import { useLocation, useNavigate, useOutlet } from "react-router";
import { isBusyElsewhere } from "./letters";
import { useListAddress } from "./listAddress";
import { PanelWidth } from "./PanelWidth";
import { stepOf, useRowArrows } from "./useRowArrows";

interface Props {
  /** The address of the list alone. */
  home: string;
  /** The addresses of the rows' panels, in the order of the rows. */
  rows: string[];
  /** The address of the open panel, or null. */
  open: string | null;
  children: ReactNode;
}

/** A list, and over its right side the panel of the chosen row. Arrows move to the next row; Esc closes. */
export function ListAndPanel({ home, rows, open, children }: Props) {
  const panel = useOutlet();
  const [isWide, setWide] = useState(false);
  const navigate = useNavigate();
  const withList = useListAddress();

  // What is opened in the panel's place begins at its head.
  const { pathname } = useLocation();
  const aside = useRef<HTMLElement>(null);
  useEffect(() => {
    if (aside.current) aside.current.scrollTop = 0;
  }, [pathname]);

  // Who closes a panel is back at its row, or, when that is gone, at the list.
  const list = useRef<HTMLElement>(null);
  const before = useRef(open);
  useEffect(() => {
    const closed = open === null && before.current;
    before.current = open;
    if (!closed || (document.activeElement && document.activeElement !== document.body)) return;
    const row = [...document.querySelectorAll<HTMLElement>("[data-row]")].find(
      (link) => new URL((link as HTMLAnchorElement).href).pathname === closed,
    );
    (row ?? list.current)?.focus();
  }, [open]);

  useRowArrows(!open);
  useEffect(() => {
    if (!open) return;
    const onKey = (event: KeyboardEvent) => {
      const step = stepOf(event);
      if (step !== 0) {
        const next = rows[rows.indexOf(open) + step];
        if (next) void navigate(withList(next), { replace: true });
        event.preventDefault();
      } else if (event.key === "Escape" && !event.defaultPrevented && !isBusyElsewhere(event.target))
        void navigate(withList(home));
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, [home, rows, open, navigate, withList]);

  return (
    <div className="@container/all relative h-full overflow-hidden">
      <main
        ref={list}
        tabIndex={-1}
        className={`@container/list h-full overflow-y-auto outline-none ${open ? `hidden w-[45%] ${isWide ? "" : "lg:block"}` : ""}`}
        aria-label="List"
      >
        {children}
      </main>
      {open && panel && (
        <aside
          ref={aside}
          aria-label="Details"
          className={`@container/panel absolute inset-y-0 right-0 w-full overflow-y-auto wrap-anywhere bg-card shadow-panel ${isWide ? "" : "lg:w-[55%]"}`}
        >
          <PanelWidth value={{ isWide, setWide }}>{panel}</PanelWidth>
        </aside>
      )}
    </div>
  );
}
