import type { ReactNode } from "react";
import type { Schemas } from "../../../api/problem";
import { CheckBox, GrowingText, Labelled, SelectBox, TextBox, boxLook } from "../../../kit/fields";
import { NumberBox } from "../../../kit/NumberBox";
import { CalculationEditor } from "../conditions/CalculationEditor";
import { freeKey, type AnyQuestion, type KindNamed, type QuestionKind } from "../form";
import { useWorkbench } from "../workbenchContext";
import { ListPicker } from "./ListPicker";
import { Members } from "./Members";
import { Options } from "./Options";

interface LimitsProps<K extends QuestionKind["kind"]> {
  kind: KindNamed<K>;
  question: AnyQuestion;
  onChange: (part: Partial<KindNamed<K>>) => void;
}

/** What can be set of each kind. A kind that is added to the schema has to be added here. */
const limits: { [K in QuestionKind["kind"]]: (props: LimitsProps<K>) => ReactNode } = {
  address: () => null,
  email: () => null,
  personName: () => null,
  phone: () => null,
  webAddress: () => null,
  yesNo: () => null,
  shortText: ({ kind, onChange }) => (
    <Members of="QuestionKindShortTextKind" half={["minLength", "maxLength"]} fields={textFields(kind, onChange)} />
  ),
  longText: ({ kind, onChange }) => (
    <Members of="QuestionKindLongTextKind" half={["minLength", "maxLength"]} fields={textFields(kind, onChange)} />
  ),
  number: ({ kind, onChange }) => (
    <Members
      of="QuestionKindNumberKind"
      half={["min", "max", "unit", "whole"]}
      fields={{
        min: <Amount label="Smallest" value={kind.min} onChange={(min) => onChange({ min })} />,
        max: <Amount label="Largest" value={kind.max} onChange={(max) => onChange({ max })} />,
        unit: <OwnWords label="Unit behind it" value={kind.unit} onChange={(unit) => onChange({ unit })} />,
        whole: (
          <CheckBox
            label="Whole numbers only"
            checked={kind.whole ?? false}
            onChange={(whole) => onChange({ whole })}
          />
        ),
      }}
    />
  ),
  money: ({ kind, onChange }) => (
    <Members
      of="QuestionKindMoneyKind"
      half={["min", "max"]}
      fields={{
        min: <Amount label="Smallest" value={kind.min} onChange={(min) => onChange({ min })} />,
        max: <Amount label="Largest" value={kind.max} onChange={(max) => onChange({ max })} />,
        currency: <Currency value={kind.currency} onChange={(currency) => onChange({ currency })} />,
      }}
    />
  ),
  scale: ({ kind, onChange }) => (
    <Members
      of="QuestionKindScaleKind"
      half={["low", "high", "lowLabel", "highLabel"]}
      fields={{
        low: <Amount label="From" whole value={kind.low} onChange={(low) => onChange({ low: low ?? 1 })} />,
        high: <Amount label="To" whole value={kind.high} onChange={(high) => onChange({ high: high ?? 5 })} />,
        lowLabel: (
          <OwnWords
            label="Words at the low end"
            value={kind.lowLabel}
            onChange={(lowLabel) => onChange({ lowLabel })}
          />
        ),
        highLabel: (
          <OwnWords
            label="Words at the high end"
            value={kind.highLabel}
            onChange={(highLabel) => onChange({ highLabel })}
          />
        ),
      }}
    />
  ),
  date: ({ kind, onChange }) => (
    <Members
      of="QuestionKindDateKind"
      fields={{ limits: <DayLimits limits={kind.limits ?? null} onChange={(one) => onChange({ limits: one })} /> }}
    />
  ),
  dateRange: ({ kind, onChange }) => (
    <Members
      of="QuestionKindDateRangeKind"
      fields={{
        limits: <DayLimits limits={kind.limits ?? null} onChange={(one) => onChange({ limits: one })} />,
        orMonth: (
          <CheckBox
            label="Or only a month, for who does not know the days yet"
            checked={kind.orMonth ?? false}
            onChange={(orMonth) => onChange({ orMonth })}
          />
        ),
      }}
    />
  ),
  choice: ({ kind, question, onChange }) => <Options kind={kind} question={question} onChange={onChange} />,
  files: ({ kind, onChange }) => <FileLimits kind={kind} onChange={onChange} />,
  consent: ({ kind, onChange }) => (
    <Members of="QuestionKindConsentKind" fields={{ statement: <Statement kind={kind} onChange={onChange} /> }} />
  ),
  advertising: ({ kind, onChange }) => (
    <Members of="QuestionKindAdvertisingKind" fields={{ statement: <Statement kind={kind} onChange={onChange} /> }} />
  ),
  signature: ({ kind, onChange }) => (
    <Members
      of="QuestionKindSignatureKind"
      fields={{
        statement: <Statement kind={kind} onChange={onChange} />,
        forOthers: (
          <CheckBox
            label="They may sign for somebody else, and say for whom"
            checked={kind.forOthers ?? false}
            onChange={(forOthers) => onChange({ forOthers })}
          />
        ),
      }}
    />
  ),
  hidden: ({ kind, onChange }) => (
    <Members
      of="QuestionKindHiddenKind"
      fields={{
        parameter: (
          <TextBox
            label="Its name in the link"
            help="Like utm_source. Leave it empty for the page they came from."
            value={kind.parameter ?? ""}
            onChange={(e) => onChange({ parameter: e.target.value || null })}
          />
        ),
      }}
    />
  ),
  lookUp: ({ kind, onChange }) => <ListPicker kind={kind} onChange={onChange} />,
  rows: ({ kind, onChange }) => (
    <Members
      of="QuestionKindListKind"
      half={["least", "most"]}
      fields={{
        called: (
          <TextBox
            label="What one line is called"
            help="Like “sign”: people read “Add another sign”."
            value={kind.called}
            onChange={(e) => onChange({ called: e.target.value })}
          />
        ),
        ...rowLimits(kind, onChange),
        asks: <InTheOutline />,
      }}
    />
  ),
  people: ({ kind, onChange }) => <PeopleLimits kind={kind} onChange={onChange} />,
  workedOut: ({ kind, question, onChange }) => (
    <Members
      of="QuestionKindWorkedOutKind"
      fields={{
        value: <CalculationEditor value={kind.value} place={question.key} onChange={(value) => onChange({ value })} />,
        shown: (
          <CheckBox label="People see it" checked={kind.shown ?? true} onChange={(shown) => onChange({ shown })} />
        ),
        unit: <OwnWords label="Unit behind it" value={kind.unit} onChange={(unit) => onChange({ unit })} />,
      }}
    />
  ),
};

/** What can be set of the kind a question has. */
export function KindLimits({ question, onChange }: { question: AnyQuestion; onChange: (kind: QuestionKind) => void }) {
  const kind = question.kind;
  // Which function it is hangs on the kind it is called with; the compiler cannot see that.
  const show = limits[kind.kind] as (props: LimitsProps<QuestionKind["kind"]>) => ReactNode;
  return show({ kind, question, onChange: (part) => onChange({ ...kind, ...part } as QuestionKind) });
}

export function Amount(props: {
  label: string;
  value: number | null | undefined;
  whole?: boolean;
  onChange: (value: number | null) => void;
}) {
  return (
    <Labelled label={props.label}>
      <NumberBox
        className="w-full"
        placeholder="any"
        whole={props.whole}
        value={props.value}
        onChange={props.onChange}
      />
    </Labelled>
  );
}

/** Words that may be none. */
function OwnWords(props: {
  label: string;
  value: string | null | undefined;
  onChange: (words: string | null) => void;
}) {
  return (
    <TextBox
      label={props.label}
      placeholder="none"
      value={props.value ?? ""}
      onChange={(e) => props.onChange(e.target.value || null)}
    />
  );
}

function textFields(
  kind: KindNamed<"shortText" | "longText">,
  onChange: (part: { minLength?: number; maxLength?: number }) => void,
) {
  const usual = kind.kind === "shortText" ? 200 : 4000;
  return {
    minLength: (
      <Amount
        label="At least, in characters"
        whole
        value={kind.minLength || null}
        onChange={(minLength) => onChange({ minLength: minLength ?? 0 })}
      />
    ),
    maxLength: (
      <Amount
        label="At most, in characters"
        whole
        value={kind.maxLength ?? usual}
        onChange={(maxLength) => onChange({ maxLength: maxLength ?? usual })}
      />
    ),
  };
}

function rowLimits(kind: KindNamed<"rows" | "people">, onChange: (part: { least?: number; most?: number }) => void) {
  return {
    least: (
      <Amount label="At least" whole value={kind.least ?? 0} onChange={(least) => onChange({ least: least ?? 0 })} />
    ),
    most: <Amount label="At most" whole value={kind.most ?? 50} onChange={(most) => onChange({ most: most ?? 50 })} />,
  };
}

function PeopleLimits({ kind, onChange }: Omit<LimitsProps<"people">, "question">) {
  const { form } = useWorkbench();
  const bornKey = kind.bornKey;
  return (
    <Members
      of="QuestionKindPeopleKind"
      half={["least", "most"]}
      fields={{
        called: (
          <TextBox
            label="What one of them is called"
            help="Like “painter”: people read “Add another painter”."
            value={kind.called ?? "person"}
            onChange={(e) => onChange({ called: e.target.value })}
          />
        ),
        ...rowLimits(kind, onChange),
        nameKey: <p>Everybody has a name.</p>,
        bornKey: (
          <CheckBox
            label="Ask for their birth date"
            help="Rather than for their age: it is right on the day that counts."
            checked={bornKey !== null}
            onChange={(on) => onChange({ bornKey: on ? freeKey(form, "born") : null })}
          />
        ),
        more: <InTheOutline />,
      }}
    />
  );
}

const InTheOutline = () => (
  <p className="text-slate">What each line asks is built in the outline, under this question.</p>
);

function Statement(props: { kind: { statement: string }; onChange: (part: { statement: string }) => void }) {
  return (
    <Labelled label="What they agree to" help="It is kept with their answer, word for word.">
      <GrowingText
        className={boxLook}
        value={props.kind.statement}
        onChange={(e) => props.onChange({ statement: e.target.value })}
      />
    </Labelled>
  );
}

function Currency({ value, onChange }: { value: string; onChange: (currency: string) => void }) {
  const { parts } = useWorkbench();
  return (
    <SelectBox label="Currency" value={value} onChange={(e) => onChange(e.target.value)}>
      {[...new Set([parts.currency, value])].map((code) => (
        <option key={code} value={code}>
          {code}
        </option>
      ))}
    </SelectBox>
  );
}

type Limits = Schemas["DateLimits"];

function DayLimits({ limits, onChange }: { limits: Limits | null; onChange: (limits: Limits | null) => void }) {
  const set = (part: Partial<Limits>) => {
    const next = { earliest: null, latest: null, fromDays: null, toDays: null, ...limits, ...part };
    onChange(Object.values(next).every((one) => one === null) ? null : next);
  };
  const day = (label: string, name: "earliest" | "latest") => (
    <TextBox
      type="date"
      label={label}
      value={limits?.[name] ?? ""}
      onChange={(e) => set({ [name]: e.target.value || null })}
    />
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

const groups: [Schemas["FileGroup"], string][] = [
  ["picture", "Pictures"],
  ["document", "Documents"],
  ["table", "Tables"],
  ["sound", "Sound"],
  ["film", "Film"],
  ["parcel", "Packed files (zip)"],
];

const megabyte = 1024 * 1024;

function FileLimits({ kind, onChange }: Omit<LimitsProps<"files">, "question">) {
  const chosen = kind.groups ?? null;
  return (
    <Members
      of="QuestionKindFilesKind"
      half={["atMost", "maxBytes"]}
      fields={{
        atMost: (
          <Amount
            label="At most, files"
            whole
            value={kind.atMost ?? 5}
            onChange={(atMost) => onChange({ atMost: atMost ?? 1 })}
          />
        ),
        maxBytes: (
          <Amount
            label="Each at most, in MB"
            value={Math.round(((kind.maxBytes ?? 25 * megabyte) / megabyte) * 100) / 100}
            onChange={(size) => onChange({ maxBytes: Math.round((size ?? 25) * megabyte) })}
          />
        ),
        groups: (
          <fieldset>
            <legend className="font-semibold">What may be sent</legend>
            {groups.map(([group, words]) => (
              <CheckBox
                key={group}
                label={words}
                checked={chosen === null || chosen.includes(group)}
                onChange={(on) => {
                  const all = groups.map(([one]) => one);
                  const next = all.filter((one) => (one === group ? on : chosen === null || chosen.includes(one)));
                  onChange({ groups: next.length === all.length ? null : next });
                }}
              />
            ))}
          </fieldset>
        ),
      }}
    />
  );
}
