import { Link } from "react-router";
import type { Schemas } from "../../api/problem";
import { useListAddress } from "../../kit/listAddress";

type Week = Schemas["WeekView"];
type Entry = Week["entries"][number];
type Busy = Week["busy"][number];

/** How high an hour is. */
const hourRem = 3.4;
const remOf = (minutes: number) => (minutes / 60) * hourRem;

/** The week by days and hours; where there is no room for it, day by day as a list. */
export function WeekPicture({ week, open }: { week: Week; open: string | undefined }) {
  return (
    <>
      <div className="hidden @2xl/list:block">
        <Grid week={week} open={open} />
      </div>
      <DayList week={week} open={open} />
    </>
  );
}

function Grid({ week, open }: { week: Week; open: string | undefined }) {
  const hours = Array.from({ length: week.toHour - week.fromHour }, (_, index) => week.fromHour + index);
  // Days on which nothing can be are narrow.
  const isBare = (day: number) => week.days[day]!.isClosed && !week.entries.some((entry) => entry.day === day);
  const columns = `3.4rem ${week.days.map((_, day) => (isBare(day) ? "minmax(0,0.4fr)" : "minmax(0,1fr)")).join(" ")}`;
  return (
    <div className="rounded-soft bg-card shadow-soft">
      <div className="grid border-b border-line" style={{ gridTemplateColumns: columns }}>
        <span />
        {week.days.map((day) => (
          <p key={day.date} className="min-w-0 border-l border-line px-2 py-1.5">
            <strong className={day.isToday ? "underline decoration-2 underline-offset-4" : ""}>{day.name}</strong>{" "}
            <span className="text-slate">{day.number}</span>
            {day.isClosed && <span className="block text-caption text-slate">closed</span>}
          </p>
        ))}
      </div>
      <div className="grid" style={{ gridTemplateColumns: columns, height: `${remOf(60 * hours.length) + 0.8}rem` }}>
        <div aria-hidden className="relative">
          {hours.map((hour, index) => (
            <span
              key={hour}
              className="absolute right-2 -translate-y-1/2 text-caption text-slate tabular-nums"
              style={{ top: `${remOf(60 * index) + 0.6}rem` }}
            >
              {hour}:00
            </span>
          ))}
        </div>
        {week.days.map((day, index) => (
          <ol
            key={day.date}
            aria-label={`${day.name} ${day.number}`}
            className={`relative min-w-0 border-l border-line ${day.isClosed ? "bg-mist" : ""}`}
          >
            {hours.map((hour, line) => (
              <li
                key={hour}
                aria-hidden
                className="absolute inset-x-0 border-t border-line/70"
                style={{ top: `${remOf(60 * line) + 0.6}rem` }}
              />
            ))}
            {week.entries
              .filter((entry) => entry.day === index)
              .map((entry) => (
                <Block key={entry.meeting} entry={entry} fromHour={week.fromHour} isOpen={entry.meeting === open} />
              ))}
            {week.busy
              .filter((busy) => busy.day === index && busy.to > 60 * week.fromHour && busy.from < 60 * week.toHour)
              .map((busy) => (
                <BusyTime key={busy.says} busy={busy} fromHour={week.fromHour} toHour={week.toHour} />
              ))}
            {week.now?.day === index && week.now.minute >= 60 * week.fromHour && week.now.minute < 60 * week.toHour && (
              <li
                aria-hidden
                className="pointer-events-none absolute inset-x-0 z-10 h-1 border-y border-dusk bg-lamp"
                style={{ top: `${remOf(week.now.minute - 60 * week.fromHour) + 0.6}rem` }}
              />
            )}
          </ol>
        ))}
      </div>
    </div>
  );
}

function Block({ entry, fromHour, isOpen }: { entry: Entry; fromHour: number; isOpen: boolean }) {
  const withSearch = useListAddress();
  const width = 100 / entry.lanes;
  return (
    <li
      className="absolute p-px"
      style={{
        top: `${remOf(entry.from - 60 * fromHour) + 0.6}rem`,
        height: `${remOf(entry.to - entry.from)}rem`,
        left: `${entry.lane * width}%`,
        width: `${width}%`,
      }}
    >
      <Link
        to={withSearch(`/calendar/${entry.meeting}`)}
        data-row
        aria-current={isOpen || undefined}
        title={entry.says}
        aria-label={`${entry.says}${entry.state === "missed" ? ", did not come" : ""}`}
        className={`block h-full overflow-hidden rounded-soft border px-1.5 py-0.5 text-note leading-tight hover:border-ink aria-[current]:border-2 aria-[current]:border-dusk ${entry.state === "missed" ? "border-dashed border-edge bg-card text-slate" : entry.isNext ? "border-dusk bg-glow" : "border-dusk bg-card"}`}
      >
        <strong className="block truncate">{entry.title}</strong>
        <span className="block truncate text-caption text-slate">
          {entry.state === "missed" ? "did not come" : entry.detail}
        </span>
      </Link>
    </li>
  );
}

/** A time at which somebody is busy, by a calendar kept elsewhere. */
function BusyTime({ busy, fromHour, toHour }: { busy: Busy; fromHour: number; toHour: number }) {
  const [from, to] = [Math.max(busy.from, 60 * fromHour), Math.min(busy.to, 60 * toHour)];
  const width = 100 / busy.lanes;
  return (
    <li
      title={busy.says}
      className="absolute p-px"
      style={{
        top: `${remOf(from - 60 * fromHour) + 0.6}rem`,
        height: `${remOf(to - from)}rem`,
        left: `${busy.lane * width}%`,
        width: `${width}%`,
      }}
    >
      <span className="busy-time block h-full overflow-hidden rounded-soft px-1.5 py-0.5 text-note leading-tight text-slate">
        <span className="sr-only">{busy.says}</span>
        <strong aria-hidden className="block truncate">
          {busy.title}
        </strong>
        <span aria-hidden className="block truncate text-caption">
          {busy.detail}
        </span>
      </span>
    </li>
  );
}

/** The same as a list, for narrow screens. */
function DayList({ week, open }: { week: Week; open: string | undefined }) {
  const withSearch = useListAddress();
  return (
    <ul className="grid gap-3 @2xl/list:hidden">
      {week.days.map((day, index) => {
        const entries = week.entries.filter((entry) => entry.day === index);
        const busy = week.busy.filter((one) => one.day === index);
        return (
          <li key={day.date} className="rounded-soft bg-card p-3 shadow-soft">
            <p>
              <strong>{day.name}</strong> <span className="text-slate">{day.number}</span>
              {day.isToday && <span className="ml-2 font-semibold">today</span>}
              {entries.length + busy.length === 0 && (
                <span className="ml-2 text-slate">{day.isClosed ? "closed" : "nothing"}</span>
              )}
            </p>
            {entries.length > 0 && (
              <ul className="mt-1 grid gap-1">
                {entries.map((entry) => (
                  <li key={entry.meeting}>
                    <Link
                      to={withSearch(`/calendar/${entry.meeting}`)}
                      aria-current={entry.meeting === open || undefined}
                      className={`block rounded-soft border border-edge px-2 py-1.5 ${entry.isNext ? "bg-glow" : ""}`}
                    >
                      <strong>
                        {entry.clock} {entry.title}
                      </strong>
                      {entry.state === "missed" && " did not come"}
                      <span className="block text-note text-slate">{entry.detail}</span>
                    </Link>
                  </li>
                ))}
              </ul>
            )}
            {busy.map((one) => (
              <p key={one.says} className="busy-time mt-1 rounded-soft px-2 py-1 text-slate">
                {one.says}
              </p>
            ))}
          </li>
        );
      })}
    </ul>
  );
}
