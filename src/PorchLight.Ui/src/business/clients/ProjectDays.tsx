import type { Schemas } from "../../api/problem";

/** The days of a project on one line: those behind us are full, today stands where it is. */
export function ProjectDays({ days }: { days: Schemas["DayOfProject"][] }) {
  const next = days.findIndex((one) => !one.isPast);
  return (
    <ol className="flex flex-wrap gap-y-3">
      {days.map((one, index) => (
        <li
          key={index}
          className={`relative min-w-28 flex-1 border-t-2 border-edge pt-3 pr-3 ${index === next && index > 0 ? "before:absolute before:-top-2 before:-left-2 before:h-3.5 before:w-1.5 before:border before:border-ink before:bg-lamp" : ""}`}
        >
          <span
            aria-hidden
            className={`absolute -top-[0.45rem] left-0 size-3 rounded-full border-2 border-dusk ${one.isPast ? "bg-dusk" : "bg-card"} ${index === next && index > 0 ? "ml-2" : ""}`}
          />
          <span className="block">{one.label}</span>
          <span className="block text-slate">
            {one.day}
            {one.isPast && <span className="sr-only">, past</span>}
          </span>
        </li>
      ))}
    </ol>
  );
}
