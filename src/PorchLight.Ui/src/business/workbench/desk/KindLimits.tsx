import type { ReactNode } from "react";
import { CheckBox, GrowingText, Labelled, SelectBox, TextBox, boxLook } from "../../../kit/fields";
import { CalculationEditor } from "../conditions/CalculationEditor";
import { freeKey, type AnyQuestion, type KindNamed, type QuestionKind } from "../form";
import { useWorkbench } from "../workbenchContext";
import { Amount } from "./Amount";
import { DayLimits } from "./DayLimits";
import { FileLimits } from "./FileLimits";
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
            label="Or just a month, if they do not know the days yet"
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
            label="They may sign for someone else, and say for whom"
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
        nameKey: <p>Everyone has a name.</p>,
        bornKey: (
          <CheckBox
            label="Ask for their birth date"
            help="Better than asking their age: it is right on the day that counts."
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
    <Labelled label="What they agree to" help="Kept with their answer, word for word.">
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
