import type { Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { MonthInput } from "../../kit/DayBox";
import { boxLook, SelectBox } from "../../kit/fields";
import { SettingsPart } from "./SettingsPart";

type Values = Required<Schemas["FormSettings"]>;

interface Props {
  view: Schemas["FormSettingsView"];
  now: Values;
  findings: Map<string, string>;
  onChange: (part: Partial<Values>) => void;
}

/** How much fits into the months, and how full they are. */
export function MonthLimits({ view, now, findings, onChange }: Props) {
  const { capacity } = now;
  const question = capacity?.question ?? "";
  const months = capacity?.months ?? [];
  const set = (next: typeof months) => onChange({ capacity: { question, months: next } });
  const stands = new Map(view.months.map((month) => [month.month, month]));
  // The first month to come that stands behind those that are limited already.
  const next = view.monthChoices.find(({ key }) => months.every(({ month }) => month < key))?.key;
  return (
    <SettingsPart
      title="Limits by month"
      note="Anyone who asks for a full month is told so and can join its waiting list. Months not listed here have no limit."
    >
      {view.dayQuestions.length === 0 ? (
        <p className="text-slate">This form asks for no day, so it cannot count by month.</p>
      ) : (
        <SelectBox
          label="Which day counts"
          value={question}
          error={findings.get("capacity.question")}
          onChange={(e) => onChange({ capacity: e.target.value ? { question: e.target.value, months } : null })}
        >
          <option value="">no limit by month</option>
          {view.dayQuestions.map((one) => (
            <option key={one.key} value={one.key}>
              {one.words}
            </option>
          ))}
        </SelectBox>
      )}
      {capacity && (
        <div className="mt-3 grid gap-2">
          {months.map((limit, index) => {
            const month = stands.get(limit.month);
            return (
              <div key={index} className="flex flex-wrap items-center gap-2">
                <span className="w-44">
                  <MonthInput
                    aria-label={`Month ${index + 1}`}
                    value={limit.month || null}
                    onChange={(month) => set(months.with(index, { ...limit, month: month ?? "" }))}
                  />
                </span>
                <span>at most</span>
                <span className="w-20">
                  <input
                    type="number"
                    min={0}
                    aria-label={`Most in month ${index + 1}`}
                    className={boxLook}
                    value={limit.most}
                    onChange={(e) => set(months.with(index, { ...limit, most: Math.trunc(Number(e.target.value)) }))}
                  />
                </span>
                <span>{limit.most === 1 ? "inquiry" : "inquiries"}</span>
                {month && (
                  <span className="text-slate">
                    {month.taken} taken{month.waiting > 0 && `, ${month.waiting} waiting`}
                  </span>
                )}
                <Button
                  weight="quiet"
                  aria-label={`Remove month ${index + 1}`}
                  onClick={() => set(months.toSpliced(index, 1))}
                >
                  Remove
                </Button>
              </div>
            );
          })}
          {findings.has("capacity.months") && (
            <p className="font-semibold text-brick">{findings.get("capacity.months")}</p>
          )}
          {next && (
            <Button className="w-fit" onClick={() => set([...months, { month: next, most: 4 }])}>
              Limit {months.length === 0 ? "a" : "another"} month
            </Button>
          )}
        </div>
      )}
    </SettingsPart>
  );
}
