import { Link, useLocation } from "react-router";

const tabs = [
  ["/calendar", "Week"],
  ["/calendar/types", "Meeting types"],
  ["/calendar/hours", "Hours"],
] as const;

/** The parts of the calendar. */
export function CalendarTabs() {
  const { pathname } = useLocation();
  // A meeting that is open stands beside the week.
  const open = tabs.slice(1).find(([to]) => pathname.startsWith(to)) ?? tabs[0];
  return (
    <nav aria-label="Calendar" className="mb-4 flex flex-wrap gap-1">
      {tabs.map(([to, words]) => (
        <Link
          key={to}
          to={to}
          aria-current={to === open[0] ? "page" : undefined}
          className="rounded-soft px-3 py-1.5 hover:bg-card aria-[current]:bg-card aria-[current]:font-semibold aria-[current]:shadow-soft"
        >
          {words}
        </Link>
      ))}
    </nav>
  );
}
