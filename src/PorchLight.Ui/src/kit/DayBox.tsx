import { useState } from "react";
import { CalendarDays } from "lucide-react";
import { Popover } from "radix-ui";
import { DayPicker } from "react-day-picker";
import { dateOf, dayOf, readDay, readTime, sayDay } from "./days";
import { controlLook, Labelled, type FieldWords } from "./fields";
import { menuLook } from "./menu";
import { TypedInput, type TypedProps } from "./TypedInput";

interface DayProps extends TypedProps<string> {
  /** The last day that can be chosen. */
  latest?: string;
}

const wrongDay = (typed: string) => `“${typed}” is not a day. Write it like 7 December 2026, or choose it.`;

/** A box for a day, "2026-12-07" as a value: typed with the name of its month, or chosen from a calendar. */
export function DayInput({ value, onChange, latest, className = "", ...rest }: DayProps) {
  const [isOpen, setOpen] = useState(false);
  const chosen = value ? dateOf(value) : undefined;
  return (
    <span className="relative inline-grid min-w-0">
      <TypedInput
        placeholder="like 7 Dec 2026"
        className={`${controlLook} w-52 max-w-full pr-10! ${className}`}
        value={value}
        read={readDay}
        say={sayDay}
        wrong={wrongDay}
        onChange={onChange}
        {...rest}
      />
      <Popover.Root open={isOpen} onOpenChange={setOpen}>
        <Popover.Trigger
          type="button"
          aria-label="Choose from a calendar"
          className="absolute top-0.5 right-0.5 grid size-8 place-items-center rounded-soft text-slate hover:bg-mist hover:text-ink"
        >
          <CalendarDays size={18} aria-hidden />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content align="end" aria-label="Calendar" className={`${menuLook} z-60 p-3`}>
            <DayPicker
              mode="single"
              // eslint-disable-next-line jsx-a11y/no-autofocus -- whoever opened the calendar goes on in it
              autoFocus
              weekStartsOn={1}
              selected={chosen}
              defaultMonth={chosen}
              disabled={latest ? { after: dateOf(latest) } : undefined}
              onSelect={(date) => {
                onChange(date ? dayOf(date) : null);
                setOpen(false);
              }}
              classNames={calendarLook}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </span>
  );
}

const turn = "grid size-9 place-items-center rounded-soft hover:bg-mist";
const calendarLook = {
  months: "relative",
  month_caption: "flex h-9 items-center pl-2 font-head font-semibold",
  nav: "absolute top-0 right-0 flex",
  button_previous: turn,
  button_next: turn,
  chevron: "size-4 fill-current",
  weekday: "size-9 text-caption font-normal text-slate",
  day: "p-0 text-center",
  day_button: "size-9 rounded-soft tabular-nums hover:bg-mist disabled:text-edge",
  selected: "[&>button]:bg-dusk [&>button]:text-card",
  outside: "text-edge",
};

/** The same with its label. */
export const DayBox = ({ label, help, error, ...rest }: FieldWords & DayProps) => (
  <Labelled label={label} help={help} error={error}>
    <DayInput aria-invalid={error ? true : undefined} {...rest} />
  </Labelled>
);

const wrongTime = (typed: string) => `“${typed}” is not a time. Write it like 17:30.`;
const asIs = (time: string) => time;

/** A box for a time of day, "17:30" as a value. */
export const TimeInput = ({ className = "", ...rest }: TypedProps<string>) => (
  <TypedInput
    placeholder="like 17:30"
    className={`${controlLook} w-28 tabular-nums ${className}`}
    read={readTime}
    say={asIs}
    wrong={wrongTime}
    {...rest}
  />
);

/** The same with its label. */
export const TimeBox = ({ label, help, error, ...rest }: FieldWords & TypedProps<string>) => (
  <Labelled label={label} help={help} error={error}>
    <TimeInput aria-invalid={error ? true : undefined} {...rest} />
  </Labelled>
);

const wrongMonth = (typed: string) => `“${typed}” is not a month. Write it like March 2027.`;
const readMonth = (typed: string) =>
  /^\d{4}-\d\d?$/.test(typed)
    ? (readDay(`${typed}-1`)?.slice(0, 7) ?? null)
    : (readDay(`1 ${typed}`)?.slice(0, 7) ?? null);
const sayMonth = (month: string) => sayDay(`${month}-01`).slice(2);

/** A box for a month, "2027-03" as a value. */
export const MonthInput = ({ className = "", ...rest }: TypedProps<string>) => (
  <TypedInput
    placeholder="like May 2027"
    className={`${controlLook} w-40 ${className}`}
    read={readMonth}
    say={sayMonth}
    wrong={wrongMonth}
    {...rest}
  />
);
