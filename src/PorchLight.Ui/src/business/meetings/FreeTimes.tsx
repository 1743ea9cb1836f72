import { useState } from "react";
import { Problem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";

type Times = Schemas["BookingTable"];

const daysAtFirst = 4;

interface Props {
  times: Times;
  /** When the chosen one begins; null for none. */
  chosen: string | null;
  onChoose: (start: string) => void;
}

/** Free times by days, of which one is chosen. */
export function FreeTimes({ times, chosen, onChoose }: Props) {
  const [isWhole, setWhole] = useState(false);
  const days = isWhole ? times.days : times.days.slice(0, daysAtFirst);
  if (times.days.length === 0)
    return <p>No time is free within its horizon. Look at its hours and notice, or at what is busy.</p>;
  return (
    <fieldset>
      <legend className="mb-1 font-semibold">When</legend>
      <div className="grid max-h-80 gap-2 overflow-y-auto">
        {days.map((day) => (
          <div key={day.day} className="grid gap-x-3 sm:grid-cols-[9rem_minmax(0,1fr)]">
            <p>
              <strong>{day.name}</strong> <span className="text-note text-slate">{day.date}</span>
            </p>
            <span className="flex flex-wrap gap-1.5">
              {day.parts.flat().map((time) => (
                <label key={time.start} className="relative">
                  <input
                    type="radio"
                    name="free-time"
                    aria-label={time.says}
                    className="peer absolute inset-0 size-full cursor-pointer opacity-0"
                    checked={chosen === time.start}
                    onChange={() => onChoose(time.start)}
                  />
                  <span className="inline-flex min-h-7 min-w-12 items-center justify-center rounded-soft border border-edge px-1.5 text-note tabular-nums peer-checked:border-dusk peer-checked:bg-dusk peer-checked:font-semibold peer-checked:text-card peer-focus-visible:outline-2 peer-focus-visible:outline-offset-2 peer-focus-visible:outline-ink forced-colors:peer-checked:border-4">
                    {time.clock}
                  </span>
                </label>
              ))}
            </span>
          </div>
        ))}
      </div>
      {!isWhole && times.days.length > daysAtFirst && (
        <Button weight="quiet" className="mt-1" onClick={() => setWhole(true)}>
          Show later days
        </Button>
      )}
    </fieldset>
  );
}

/** That a time was taken meanwhile, with those nearest to it. */
export function NearestTimes({
  error,
  chosen,
  onChoose,
}: {
  error: unknown;
  chosen: string | null;
  onChoose: (start: string) => void;
}) {
  if (!(error instanceof Problem) || error.nearest.length === 0) return null;
  return (
    <div role="alert" className="border-l-4 border-brick pl-3">
      <p className="font-semibold text-brick">{error.message}</p>
      <span className="mt-1 flex flex-wrap gap-2">
        {error.nearest.map((time) => (
          <Button key={time.start} aria-pressed={chosen === time.start} onClick={() => onChoose(time.start)}>
            {time.says}
          </Button>
        ))}
      </span>
    </div>
  );
}
