import { useEffect, type ReactNode } from "react";
import { useNavigate, useOutlet } from "react-router";

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
  const navigate = useNavigate();

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.altKey || event.ctrlKey || event.metaKey || isBusyElsewhere(event.target))
        return;
      const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
      if (open && event.key === "Escape") void navigate(home);
      else if (open && step !== 0) {
        const next = rows[rows.indexOf(open) + step];
        if (next) void navigate(next, { replace: true });
        event.preventDefault();
      } else if (!open && step !== 0) {
        const links = [...document.querySelectorAll<HTMLElement>("[data-row]")];
        links[Math.max(0, links.indexOf(document.activeElement as HTMLElement) + step)]?.focus();
        event.preventDefault();
      }
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, [home, rows, open, navigate]);

  return (
    <div className="@container/all relative h-full overflow-hidden">
      <main
        className={`@container/list h-full overflow-y-auto ${open ? "hidden w-[45%] lg:block" : ""}`}
        aria-label="List"
      >
        {children}
      </main>
      {open && panel && (
        <aside
          aria-label="Details"
          className="absolute inset-y-0 right-0 w-full overflow-y-auto wrap-anywhere bg-card shadow-panel lg:w-[55%]"
        >
          {panel}
        </aside>
      )}
    </div>
  );
}

function isBusyElsewhere(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    target.closest("input, textarea, select, [contenteditable], [role=menu], [role=dialog]") !== null
  );
}
