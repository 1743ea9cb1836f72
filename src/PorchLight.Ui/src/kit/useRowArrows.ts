import { useEffect } from "react";
import { isBusyElsewhere } from "./letters";

/** How far an arrow key goes along rows: down, up, or not at all. */
export function stepOf(event: KeyboardEvent): number {
  if (event.defaultPrevented || event.altKey || event.ctrlKey || event.metaKey || isBusyElsewhere(event.target))
    return 0;
  return event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
}

/** Lets the arrow keys go from row to row of a list, while nothing else needs them. */
export function useRowArrows(isOn = true) {
  useEffect(() => {
    if (!isOn) return;
    const onKey = (event: KeyboardEvent) => {
      const step = stepOf(event);
      if (step === 0) return;
      const links = [...document.querySelectorAll<HTMLElement>("[data-row]")];
      links[Math.max(0, links.indexOf(document.activeElement as HTMLElement) + step)]?.focus();
      event.preventDefault();
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, [isOn]);
}
