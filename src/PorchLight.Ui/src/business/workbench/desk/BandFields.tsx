import type { Schemas } from "../../../api/problem";
import { Button } from "../../../kit/Button";
import { boxLook, SelectBox } from "../../../kit/fields";
import { NumberBox } from "../../../kit/NumberBox";
import { elsewhere, Members } from "./Members";

type Band = Schemas["Band"];
type Bound = Schemas["Bound"];

/** The range of numbers an answer stands for, with its ends. */
export function BandFields(props: { band: Band | null; currency: string; onChange: (band: Band | null) => void }) {
  const { band, currency, onChange } = props;
  if (!band)
    return (
      <Button onClick={() => onChange({ low: { value: 0, open: false }, high: null, currency, instalments: null })}>
        It stands for a range
      </Button>
    );
  const set = (part: Partial<Band>) => onChange({ ...band, ...part });
  return (
    <fieldset>
      <legend className="font-semibold">It stands for</legend>
      <Members
        of="Band"
        half={["low", "high", "currency", "instalments"]}
        fields={{
          isEmpty: elsewhere,
          low: (
            <End
              label="From"
              words={["and more", "more than that"]}
              bound={band.low}
              onChange={(low) => set({ low })}
            />
          ),
          high: (
            <End
              label="To"
              words={["included", "less than that"]}
              bound={band.high}
              onChange={(high) => set({ high })}
            />
          ),
          currency: (
            <SelectBox
              label="Of"
              value={band.currency ?? ""}
              onChange={(e) => set({ currency: e.target.value || null })}
            >
              <option value="">a bare number</option>
              {[...new Set([currency, band.currency].filter((code) => code !== null && code !== undefined))].map(
                (code) => (
                  <option key={code} value={code}>
                    {code}
                  </option>
                ),
              )}
            </SelectBox>
          ),
          instalments: (
            <SelectBox
              label="Paid"
              value={band.instalments ?? ""}
              onChange={(e) => set({ instalments: e.target.value ? Number(e.target.value) : null })}
            >
              <option value="">once</option>
              {[...new Set([6, 12, 24, 36, band.instalments].filter((one) => one !== null && one !== undefined))]
                .sort((a, b) => a - b)
                .map((times) => (
                  <option key={times} value={times}>
                    monthly, {times} times
                  </option>
                ))}
            </SelectBox>
          ),
        }}
      />
      <Button weight="quiet" className="mt-1 -ml-3" onClick={() => onChange(null)}>
        It stands for no range
      </Button>
    </fieldset>
  );
}

function End(props: {
  label: string;
  words: [string, string];
  bound: Bound | null | undefined;
  onChange: (bound: Bound | null) => void;
}) {
  const { label, words, bound, onChange } = props;
  return (
    <Members
      of="Bound"
      half={["value", "open"]}
      fields={{
        value: (
          <label className="block">
            <span>{label}</span>
            <NumberBox
              className="mt-1 w-full"
              placeholder="open"
              value={bound?.value}
              onChange={(value) => onChange(value === null ? null : { open: false, ...bound, value })}
            />
          </label>
        ),
        open: (
          <select
            aria-label={`${label}: the number itself`}
            className={boxLook}
            disabled={!bound}
            value={bound?.open ? "open" : ""}
            onChange={(e) => bound && onChange({ ...bound, open: e.target.value === "open" })}
          >
            <option value="">{words[0]}</option>
            <option value="open">{words[1]}</option>
          </select>
        ),
      }}
    />
  );
}
