const months = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
];

/** A day as it is written here, whatever country the browser comes from: "7 December 2026". */
export function sayDay(day: string): string {
  const [year, month, date] = day.split("-").map(Number);
  return `${date} ${months[month! - 1]} ${year}`;
}

const two = (number: number) => String(number).padStart(2, "0");

/** The day of the calendar, "2026-12-07". */
export const dayOf = (date: Date) => `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;

/** The same as a date of the browser, in its own zone. */
export const dateOf = (day: string) => new Date(`${day}T00:00`);

const shapes: [RegExp, (found: RegExpExecArray) => [string, string, string]][] = [
  [/^(\d{4})-(\d{1,2})-(\d{1,2})$/, ([, year, month, date]) => [year!, month!, date!]],
  [/^(\d{1,2})\.? +([a-z]{3,})\.?,? +(\d{4})$/i, ([, date, month, year]) => [year!, month!, date!]],
  [/^([a-z]{3,})\.? +(\d{1,2}),? +(\d{4})$/i, ([, month, date, year]) => [year!, month!, date!]],
];

/** A day that somebody typed, with the month's name or as 2026-12-07; null where it is none, or could be read in two ways. */
export function readDay(typed: string): string | null {
  for (const [shape, parts] of shapes) {
    const found = shape.exec(typed);
    if (!found) continue;
    const [year, named, date] = parts(found);
    const month = /^\d/.test(named)
      ? Number(named)
      : months.findIndex((one) => one.toLowerCase().startsWith(named.toLowerCase())) + 1;
    const day = `${year}-${two(month)}-${two(Number(date))}`;
    const made = dateOf(day);
    // The 31st of a month with thirty days is no day.
    return month > 0 && dayOf(made) === day ? day : null;
  }
  return null;
}

/** A time of day that somebody typed, "17:30"; null where it is none. */
export function readTime(typed: string): string | null {
  const found = /^(\d{1,2})(?:[:.](\d{2}))?$/.exec(typed);
  const [hour, minute] = [Number(found?.[1] ?? 99), Number(found?.[2] ?? 0)];
  return hour < 24 && minute < 60 ? `${two(hour)}:${two(minute)}` : null;
}
