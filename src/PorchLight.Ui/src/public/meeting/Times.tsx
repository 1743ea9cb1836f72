import { useId, useState } from "react";
import { quietButton } from "../controls/control";
import type { Schemas } from "../../api/problem";
import { showZones, type BookingTable, type BookingTime } from "./client";

const partNames: Record<BookingTable["parts"][number], string> = {
  night: "night",
  morning: "morning",
  midday: "midday",
  afternoon: "afternoon",
  evening: "evening",
};

interface Props {
  times: BookingTable;
  /** How many days are shown before somebody asks for more. */
  daysAtFirst?: number;
  /** Whether other times are on their way. */
  isWaiting: boolean;
  chosen: BookingTime | null;
  onChoose: (time: BookingTime) => void;
  zone: string;
  onZone: (zone: string) => void;
}

/** Days with their free times, by the parts of the day, in one zone that can be changed. */
export function Times({ times, daysAtFirst = 6, isWaiting, chosen, onChoose, zone, onZone }: Props) {
  const [isWhole, setWhole] = useState(false);
  const heading = useId();
  const days = isWhole ? times.days : times.days.slice(0, daysAtFirst);
  const left = times.days.length - days.length;
  return (
    <section
      aria-labelledby={heading}
      aria-busy={isWaiting}
      className="@container rounded-soft bg-card p-4 shadow-soft sm:p-5"
    >
      <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1">
        <h2 id={heading} className="text-lead">
          When suits you?
        </h2>
        <ZoneChoice zone={zone} zoneName={times.zone} onZone={onZone} />
      </div>
      {days.length === 0 ? (
        <p>No time is free at the moment. Please write to us; we will find one.</p>
      ) : (
        <div role="radiogroup" aria-labelledby={heading}>
          <div aria-hidden className="hidden border-b border-line pb-1 text-note text-slate @2xl:flex">
            <span className="w-40 shrink-0" />
            {times.parts.map((part) => (
              <span key={part} className="flex-1">
                {partNames[part]}
              </span>
            ))}
          </div>
          {days.map((day) => (
            <div key={day.day} className="border-b border-line py-3 last:border-b-0 @2xl:flex @2xl:items-center">
              <p className="mb-2 @2xl:mb-0 @2xl:w-40 @2xl:shrink-0">
                <strong className="@2xl:block">{day.name}</strong>{" "}
                <span className="text-note text-slate @2xl:block">{day.date}</span>
              </p>
              <div className="flex flex-wrap gap-2 @2xl:contents">
                {day.parts.map((ofPart, index) => {
                  const part = times.parts[index]!;
                  return (
                    <div
                      key={part}
                      role="group"
                      aria-label={`${day.name}, ${partNames[part]}`}
                      className={`@2xl:block @2xl:flex-1 ${ofPart.length === 0 ? "hidden" : "contents"}`}
                    >
                      {ofPart.length === 0 ? (
                        <span className="text-slate">nothing left</span>
                      ) : (
                        <span className="contents @2xl:flex @2xl:flex-wrap @2xl:gap-2">
                          {ofPart.map((time) => (
                            <Time
                              key={time.start}
                              time={time}
                              isChosen={chosen?.start === time.start}
                              onChoose={() => onChoose(time)}
                            />
                          ))}
                        </span>
                      )}
                    </div>
                  );
                })}
              </div>
            </div>
          ))}
        </div>
      )}
      {left > 0 && (
        <button type="button" className={`${quietButton} mt-3`} onClick={() => setWhole(true)}>
          {left === 1 ? "Show one more day" : `Show ${left} more days`}
        </button>
      )}
    </section>
  );
}

/** A time as one of several to choose from: arrows go through them, as through any choice. */
export function Time({ time, isChosen, onChoose }: { time: BookingTime; isChosen: boolean; onChoose: () => void }) {
  return (
    <label className="relative">
      <input
        type="radio"
        name="time"
        aria-label={time.says}
        className="peer absolute inset-0 size-full cursor-pointer opacity-0"
        checked={isChosen}
        onChange={onChoose}
      />
      <span
        title={time.says}
        className="inline-flex min-h-9 min-w-14 items-center justify-center rounded-soft border border-edge bg-card px-2.5 tabular-nums peer-checked:border-2 peer-checked:border-ink peer-checked:bg-[var(--brand)] peer-checked:font-semibold peer-checked:text-card peer-focus-visible:outline-2 peer-focus-visible:outline-offset-2 peer-focus-visible:outline-ink forced-colors:peer-checked:border-4"
      >
        {time.clock}
      </span>
    </label>
  );
}

interface ZoneProps {
  zone: string;
  zoneName: string;
  onZone: (zone: string) => void;
}

function ZoneChoice({ zone, zoneName, onZone }: ZoneProps) {
  const [zones, setZones] = useState<Schemas["NamedCode"][] | null>(null);
  const [isOpen, setOpen] = useState(false);
  const open = () => {
    setOpen(true);
    showZones().then(setZones, () => setOpen(false));
  };
  return isOpen && zones ? (
    <label className="flex flex-wrap items-center gap-2">
      <span>Times in</span>
      <select
        // eslint-disable-next-line jsx-a11y/no-autofocus -- it takes the place of the button that was pressed
        autoFocus
        className="max-w-full rounded-soft border border-edge bg-card px-2 py-1.5"
        value={zone}
        onChange={({ target }) => onZone(target.value)}
      >
        {zones.every(({ code }) => code !== zone) && <option value={zone}>{zoneName}</option>}
        {zones.map((one) => (
          <option key={one.code} value={one.code}>
            {one.name}
          </option>
        ))}
      </select>
    </label>
  ) : (
    <p className="text-slate">
      Times in {zoneName}.{" "}
      <button type="button" className="min-h-6 font-semibold text-ink underline" onClick={open}>
        Another place
      </button>
    </p>
  );
}
