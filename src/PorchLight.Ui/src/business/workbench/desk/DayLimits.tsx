import { DayBox } from "../../../kit/DayBox";
import type { Schemas } from "../../../api/problem";
import { Amount } from "./Amount";
import { Members } from "./Members";

type Limits = Schemas["DateLimits"];

/** Which days are possible, by the calendar or counted from the day of asking. */
export function DayLimits({ limits, onChange }: { limits: Limits | null; onChange: (limits: Limits | null) => void }) {
  const set = (part: Partial<Limits>) => {
    const next = { earliest: null, latest: null, fromDays: null, toDays: null, ...limits, ...part };
    onChange(Object.values(next).every((one) => one === null) ? null : next);
  };
  const day = (label: string, name: "earliest" | "latest") => (
    <DayBox label={label} value={limits?.[name]} onChange={(day) => set({ [name]: day })} />
  );
  return (
    <Members
      of="DateLimits"
      half={["earliest", "latest", "fromDays", "toDays"]}
      fields={{
        fromDays: (
          <Amount
            label="Not before, days from today"
            whole
            value={limits?.fromDays}
            onChange={(fromDays) => set({ fromDays })}
          />
        ),
        toDays: (
          <Amount
            label="Not after, days from today"
            whole
            value={limits?.toDays}
            onChange={(toDays) => set({ toDays })}
          />
        ),
        earliest: day("First possible day", "earliest"),
        latest: day("Last possible day", "latest"),
      }}
    />
  );
}
