import type { Schemas } from "../../api/problem";
import { boxLook } from "../../kit/fields";

type Week = Schemas["WeekWords"];

const days = ["monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday"] as const;

interface Props {
  value: Week;
  findings: Map<string, string>;
  onChange: (part: Partial<Week>) => void;
  /** What an empty day means. */
  empty?: string;
}

/** The hours of a week, a line a day, in words. */
export function WeekFields({ value, findings, onChange, empty = "closed" }: Props) {
  return (
    <div className="grid max-w-xl gap-1.5">
      {days.map((day) => (
        <label key={day} className="grid grid-cols-[6.5rem_minmax(0,1fr)] items-center gap-x-3">
          <span className="capitalize">{day}</span>
          <input
            className={boxLook}
            value={value[day]}
            placeholder={empty}
            aria-invalid={findings.has(day) ? true : undefined}
            onChange={(e) => onChange({ [day]: e.target.value })}
          />
          {findings.has(day) && <span className="col-start-2 font-semibold text-brick">{findings.get(day)}</span>}
        </label>
      ))}
    </div>
  );
}
