import type { Problem } from "../../api/problem";
import type { BookingTime } from "./client";

interface Props {
  problem: Problem;
  chosen: BookingTime | null;
  onChoose: (time: BookingTime) => void;
}

/** That a time is gone, with those nearest to it. */
export function Nearest({ problem, chosen, onChoose }: Props) {
  return (
    <section
      role="alert"
      tabIndex={-1}
      data-taken
      className="mt-4 rounded-soft border-l-4 border-brick bg-card p-4 shadow-soft outline-none"
    >
      <p className="font-semibold">{problem.message}</p>
      {problem.nearest.length > 0 && (
        <ul className="mt-2 grid gap-2">
          {problem.nearest.map((time) => (
            <li key={time.start}>
              <button
                type="button"
                aria-pressed={chosen?.start === time.start}
                className="min-h-9 rounded-soft border border-edge bg-card px-3 text-left aria-pressed:border-2 aria-pressed:font-semibold"
                onClick={() => onChoose(time)}
              >
                {time.says}
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
