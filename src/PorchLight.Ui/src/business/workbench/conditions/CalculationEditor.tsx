import type { ReactNode } from "react";
import type { Schemas } from "../../../api/problem";
import { boxLook, controlLook } from "../../../kit/fields";
import { NumberBox } from "../../../kit/NumberBox";
import { KnownTextBox } from "../desk/KnownTextBox";
import { Members } from "../desk/Members";
import { questionsBefore, rowQuestions, type AnyQuestion, type Calculation } from "../form";
import { useWorkbench } from "../workbenchContext";
import { KnownWords } from "../../messages/words";
import { ConditionEditor } from "./ConditionEditor";
import { FixedAnswer } from "./FixedAnswer";
import { SentenceLine } from "../../conditions/SentenceLine";

const pickerLook = `${controlLook} w-auto max-w-64`;
const deepest = 3;

type Named<K extends Calculation["kind"]> = Extract<Calculation, { kind: K }>;
type Sort = Schemas["AnswerSort"];

const kinds: [Calculation["kind"], string][] = [
  ["answer", "the answer to"],
  ["fixed", "always the same:"],
  ["ageOn", "the age of someone born on"],
  ["timeBetween", "the time between"],
  ["daysUntil", "the days until"],
  ["countRows", "how many lines there are of"],
  ["overRows", "over all lines of"],
  ["areaOfRows", "the area of all lines of"],
  ["shareOut", "a number shared out and rounded up:"],
  ["arithmetic", "two numbers together:"],
  ["joinedText", "words with answers in them"],
  ["ifElse", "one value or another"],
];

interface Props {
  value: Calculation;
  onChange: (value: Calculation) => void;
  /** The key of the question that is worked out. */
  place: string;
  depth?: number;
}

/** How a value is worked out, as a sentence with pickers in it. */
export function CalculationEditor({ value, onChange, place, depth = 0 }: Props) {
  const { form, facts, workedOut } = useWorkbench();
  const before = questionsBefore(form, place);
  const sortOf = (question: AnyQuestion): Sort => facts.questions[question.key]?.sort ?? "other";
  const first = (...sorts: Sort[]) => before.find((one) => sorts.includes(sortOf(one)))?.key ?? "";
  const isList = (one: AnyQuestion) => one.kind.kind === "rows" || one.kind.kind === "people";
  const list = before.find(isList);
  const cells = (rows: string) => {
    const found = before.find((one) => one.key === rows);
    return found ? rowQuestions(found) : [];
  };
  const firstCell = (rows: string, skip = 0) =>
    cells(rows).filter((one) => ["number", "money"].includes(sortOf(one)))[skip]?.key ?? "";

  const begin = (kind: Calculation["kind"]): Calculation => {
    const rows = list?.key ?? "";
    switch (kind) {
      case "answer":
        return { kind, question: before.at(-1)?.key ?? "" };
      case "fixed":
        return { kind, value: { kind: "text", text: "" } };
      case "ageOn":
        return { kind, born: first("day"), event: first("day", "period") };
      case "timeBetween":
        return { kind, from: first("period", "day"), to: null, in: "days" };
      case "daysUntil":
        return { kind, date: first("day", "period") };
      case "countRows":
        return { kind, rows, where: null };
      case "overRows":
        return { kind, rows, of: firstCell(rows), take: "sum" };
      case "areaOfRows":
        return { kind, rows, width: firstCell(rows), height: firstCell(rows, 1), in: "centimetres", howMany: null };
      case "shareOut":
        return { kind, amount: { kind: "answer", question: first("number") }, perUnit: 1 };
      case "arithmetic":
        return {
          kind,
          first: { kind: "answer", question: first("number", "money") },
          how: "times",
          second: { kind: "answer", question: first("number", "money") },
        };
      case "joinedText":
        return { kind, words: "" };
      case "ifElse":
        return {
          kind,
          if: { kind: "isAnswered", of: { kind: "answer", question: before.at(-1)?.key ?? "" } },
          then: { kind: "fixed", value: { kind: "text", text: "" } },
          otherwise: { kind: "fixed", value: { kind: "text", text: "" } },
        };
    }
  };

  const pick = (
    label: string,
    from: AnyQuestion[],
    chosen: string | null | undefined,
    set: (key: string) => void,
    none?: string,
  ) => (
    <select aria-label={label} className={pickerLook} value={chosen ?? ""} onChange={(e) => set(e.target.value)}>
      {(none !== undefined || !chosen) && <option value="">{none ?? "choose …"}</option>}
      {chosen && !from.some((one) => one.key === chosen) && <option value={chosen}>a deleted question</option>}
      {from.map((one) => (
        <option key={one.key} value={one.key}>
          {KnownWords.plain(one.wording)}
        </option>
      ))}
    </select>
  );
  const ofSort = (...sorts: Sort[]) => before.filter((one) => sorts.includes(sortOf(one)));
  const numbersOf = (rows: string) => cells(rows).filter((one) => ["number", "money"].includes(sortOf(one)));

  const sentence: { [K in Calculation["kind"]]: (value: Named<K>) => ReactNode } = {
    answer: (c) => (
      <Members
        of="CalculationCopiedAnswer"
        fields={{ question: pick("Which answer", before, c.question, (question) => onChange({ ...c, question })) }}
      />
    ),
    fixed: (c) => (
      <Members
        of="CalculationFixedValue"
        fields={{ value: <FixedAnswer value={c.value} onChange={(next) => onChange({ ...c, value: next })} /> }}
      />
    ),
    ageOn: (c) => (
      <Members
        of="CalculationAgeOn"
        fields={{
          born: pick("The birth date", ofSort("day"), c.born, (born) => onChange({ ...c, born })),
          event: (
            <SentenceLine before="on the day of">
              {pick("The day that counts", ofSort("day", "period"), c.event, (event) => onChange({ ...c, event }))}
            </SentenceLine>
          ),
        }}
      />
    ),
    timeBetween: (c) => (
      <Members
        of="CalculationTimeBetween"
        fields={{
          from: pick("From", ofSort("day", "period"), c.from, (from) => onChange({ ...c, from })),
          to: (
            <SentenceLine before="and">
              {pick("To", ofSort("day"), c.to, (to) => onChange({ ...c, to: to || null }), "its own last day")}
            </SentenceLine>
          ),
          in: (
            <SentenceLine before="in">
              <select
                aria-label="What is counted"
                className={pickerLook}
                value={c.in}
                onChange={(e) => onChange({ ...c, in: e.target.value as typeof c.in })}
              >
                <option value="days">days, the first and the last included</option>
                <option value="nights">nights</option>
                <option value="weeks">whole weeks</option>
              </select>
            </SentenceLine>
          ),
        }}
      />
    ),
    daysUntil: (c) => (
      <Members
        of="CalculationDaysUntil"
        fields={{ date: pick("The day", ofSort("day", "period"), c.date, (date) => onChange({ ...c, date })) }}
      />
    ),
    countRows: (c) => (
      <Members
        of="CalculationCountRows"
        fields={{
          rows: pick("The list", before.filter(isList), c.rows, (rows) => onChange({ ...c, rows, where: null })),
          where: (
            <ConditionEditor
              value={c.where}
              onChange={(where) => onChange({ ...c, where })}
              place={{ at: "rowsOf", key: c.rows }}
              without="All of them."
              begin="Count only some"
              label="Only those where"
            />
          ),
        }}
      />
    ),
    overRows: (c) => (
      <Members
        of="CalculationOverRows"
        fields={{
          rows: pick("The list", before.filter(isList), c.rows, (rows) =>
            onChange({ ...c, rows, of: firstCell(rows) }),
          ),
          take: (
            <select
              aria-label="What is made of them"
              className={pickerLook}
              value={c.take}
              onChange={(e) => onChange({ ...c, take: e.target.value as typeof c.take })}
            >
              <option value="sum">the sum of</option>
              <option value="smallest">the smallest of</option>
              <option value="largest">the largest of</option>
            </select>
          ),
          of: pick("What each line asks", numbersOf(c.rows), c.of, (of) => onChange({ ...c, of })),
        }}
      />
    ),
    areaOfRows: (c) => (
      <Members
        of="CalculationAreaOfRows"
        fields={{
          rows: pick("The list", before.filter(isList), c.rows, (rows) =>
            onChange({ ...c, rows, width: firstCell(rows), height: firstCell(rows, 1), howMany: null }),
          ),
          width: pick("One side", numbersOf(c.rows), c.width, (width) => onChange({ ...c, width })),
          height: (
            <SentenceLine before="by">
              {pick("The other side", numbersOf(c.rows), c.height, (height) => onChange({ ...c, height }))}
            </SentenceLine>
          ),
          in: (
            <SentenceLine before="both in">
              <select
                aria-label="The unit of both sides"
                className={pickerLook}
                value={c.in}
                onChange={(e) => onChange({ ...c, in: e.target.value as typeof c.in })}
              >
                <option value="metres">metres</option>
                <option value="centimetres">centimetres</option>
                <option value="millimetres">millimetres</option>
              </select>
            </SentenceLine>
          ),
          howMany: (
            <SentenceLine before="times">
              {pick(
                "How many alike",
                numbersOf(c.rows),
                c.howMany,
                (key) => onChange({ ...c, howMany: key || null }),
                "one",
              )}
            </SentenceLine>
          ),
        }}
      />
    ),
    shareOut: (c) => (
      <Members
        of="CalculationDivideAndRoundUp"
        fields={{
          amount: (
            <Inner value={c.amount} onChange={(amount) => onChange({ ...c, amount })} place={place} depth={depth} />
          ),
          perUnit: (
            <SentenceLine before="in units of">
              <NumberBox
                aria-label="How much goes into one unit"
                value={c.perUnit}
                onChange={(perUnit) => onChange({ ...c, perUnit: perUnit ?? 0 })}
              />
            </SentenceLine>
          ),
        }}
      />
    ),
    arithmetic: (c) => (
      <Members
        of="CalculationArithmeticOfTwo"
        fields={{
          first: (
            <Inner value={c.first} onChange={(next) => onChange({ ...c, first: next })} place={place} depth={depth} />
          ),
          how: (
            <select
              aria-label="What is done with them"
              className={pickerLook}
              value={c.how}
              onChange={(e) => onChange({ ...c, how: e.target.value as typeof c.how })}
            >
              <option value="plus">plus</option>
              <option value="minus">minus</option>
              <option value="times">times</option>
              <option value="dividedBy">divided by</option>
            </select>
          ),
          second: (
            <Inner value={c.second} onChange={(second) => onChange({ ...c, second })} place={place} depth={depth} />
          ),
        }}
      />
    ),
    joinedText: (c) => (
      <Members
        of="CalculationJoinedText"
        fields={{
          words: (
            <KnownTextBox
              label="The words"
              value={c.words}
              onChange={(words) => onChange({ ...c, words })}
              place={place}
            />
          ),
        }}
      />
    ),
    ifElse: (c) => (
      <Members
        of="CalculationIfElse"
        fields={{
          if: (
            <ConditionEditor
              value={c.if}
              onChange={(next) => onChange({ ...c, if: next ?? { kind: "all", parts: [] } })}
              place={{ at: "item", key: place }}
              without=""
              begin="Say when"
              label="If"
            />
          ),
          then: (
            <SentenceLine before="then">
              <Inner value={c.then} onChange={(then) => onChange({ ...c, then })} place={place} depth={depth} />
            </SentenceLine>
          ),
          otherwise: (
            <SentenceLine before="else, also while it is not known,">
              <Inner
                value={c.otherwise}
                onChange={(otherwise) => onChange({ ...c, otherwise })}
                place={place}
                depth={depth}
              />
            </SentenceLine>
          ),
        }}
      />
    ),
  };
  // Which function it is hangs on the kind it is called with; the compiler cannot see that.
  const show = sentence[value.kind] as (one: Calculation) => ReactNode;
  const offered = kinds.filter(
    ([kind]) => kind === value.kind || depth < deepest || !["ifElse", "shareOut", "arithmetic"].includes(kind),
  );
  return (
    <div className="grid gap-2">
      <label>
        <span className={depth === 0 ? "block font-semibold" : "sr-only"}>How it is worked out</span>
        <select
          className={`${boxLook} ${depth === 0 ? "mt-1" : "w-auto"}`}
          value={value.kind}
          onChange={(e) => onChange(begin(e.target.value as Calculation["kind"]))}
        >
          {offered.map(([kind, words]) => (
            <option key={kind} value={kind}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {show(value)}
      {depth === 0 && (
        <p role="status" className="text-slate">
          {workedOut[place] === undefined
            ? "Not known yet with the answers in the preview."
            : `With the answers in the preview: ${workedOut[place]}.`}
        </p>
      )}
    </div>
  );
}

const Inner = (props: Required<Props>) => (
  <div className="border-l-2 border-edge pl-3">
    <CalculationEditor {...props} depth={props.depth + 1} />
  </div>
);
