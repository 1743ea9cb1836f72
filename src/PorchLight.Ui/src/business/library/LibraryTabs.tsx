import { NavLink } from "react-router";

const tabs = [
  ["/library", "Messages"],
  ["/files", "Files and lists"],
] as const;

/** The parts of the library. */
export function LibraryTabs() {
  return (
    <nav aria-label="Library" className="mb-4 flex flex-wrap gap-1">
      {tabs.map(([to, words]) => (
        <NavLink
          key={to}
          to={to}
          className={({ isActive }) =>
            `rounded-soft px-3 py-1.5 ${isActive ? "bg-card font-semibold shadow-soft" : "hover:bg-card"}`
          }
        >
          {words}
        </NavLink>
      ))}
    </nav>
  );
}
