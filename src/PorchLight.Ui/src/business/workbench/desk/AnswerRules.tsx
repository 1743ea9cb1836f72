import type { ReactNode } from "react";
import type { Schemas } from "../../../api/problem";
import { Button } from "../../../kit/Button";
import { controlLook, TextBox } from "../../../kit/fields";
import { ConditionEditor } from "../conditions/ConditionEditor";
import type { AnyQuestion } from "../form";
import { KnownWords } from "../../messages/words";
import { useWorkbench } from "../workbenchContext";
import { Members } from "./Members";
import { SentenceLine } from "../../conditions/SentenceLine";

type Rule = Schemas["AnswerRule"];
type Named<K extends Rule["kind"]> = Extract<Rule, { kind: K }>;

/** What must hold between answers; what breaks it is said beside the later question. */
export function AnswerRules({ rules, onChange }: { rules: Rule[]; onChange: (rules: Rule[]) => void }) {
  const { form, facts } = useWorkbench();
  const asked = form.items.filter((item) => item.item === "question");
  const ofSort = (...sorts: Schemas["AnswerSort"][]) =>
    asked.filter((one) => sorts.includes(facts.questions[one.key]?.sort ?? "other"));
  const days = ofSort("day", "period");
  const lists = ofSort("rows");
  const pick = (label: string, from: AnyQuestion[], chosen: string, set: (key: string) => void) => (
    <select
      aria-label={label}
      className={`${controlLook} w-auto max-w-64`}
      value={chosen}
      onChange={(e) => set(e.target.value)}
    >
      {!from.some((one) => one.key === chosen) && (
        <option value={chosen}>{chosen ? "a deleted question" : "choose …"}</option>
      )}
      {from.map((one) => (
        <option key={one.key} value={one.key}>
          {KnownWords.plain(one.wording)}
        </option>
      ))}
    </select>
  );
  const show: { [K in Rule["kind"]]: (rule: Named<K>, set: (rule: Rule) => void) => ReactNode } = {
    endNotBeforeStart: (rule, set) => (
      <Members
        of="AnswerRuleEndNotBeforeStartRule"
        fields={{
          end: pick("The later day", days, rule.end, (end) => set({ ...rule, end })),
          start: (
            <SentenceLine before="is not before">
              {pick("The earlier day", days, rule.start, (start) => set({ ...rule, start }))}
            </SentenceLine>
          ),
        }}
      />
    ),
    countMatchesRows: (rule, set) => (
      <Members
        of="AnswerRuleCountMatchesRowsRule"
        fields={{
          count: pick("The number", ofSort("number"), rule.count, (count) => set({ ...rule, count })),
          rows: (
            <SentenceLine before="is the number of lines of">
              {pick("The list", lists, rule.rows, (rows) => set({ ...rule, rows }))}
            </SentenceLine>
          ),
        }}
      />
    ),
    never: (rule, set) => (
      <Members
        of="AnswerRuleNeverRule"
        fields={{
          when: (
            <ConditionEditor
              value={rule.when}
              onChange={(when) => set({ ...rule, when: when ?? { kind: "all", parts: [] } })}
              place={{ at: "form" }}
              without=""
              begin=""
              label="It cannot be that"
            />
          ),
          sentence: (
            <TextBox
              label="What is said then, with what to do"
              value={rule.sentence}
              onChange={(e) => set({ ...rule, sentence: e.target.value })}
            />
          ),
          at: (
            <SentenceLine before="beside">
              {pick("Beside which question", asked, rule.at, (at) => set({ ...rule, at }))}
            </SentenceLine>
          ),
        }}
      />
    ),
  };
  const add = (rule: Rule) => onChange([...rules, rule]);
  return (
    <>
      {rules.length > 0 && (
        <ul className="mb-2 grid gap-3">
          {rules.map((rule, index) => {
            // Which function it is hangs on the rule it is called with; the compiler cannot see that.
            const desk = show[rule.kind] as (one: Rule, set: (one: Rule) => void) => ReactNode;
            return (
              <li key={index} className="border-l-2 border-edge pl-3">
                {desk(rule, (next) => onChange(rules.map((one, at) => (at === index ? next : one))))}
                <Button
                  weight="quiet"
                  className="-ml-3"
                  onClick={() => onChange(rules.filter((_, at) => at !== index))}
                >
                  Remove this check
                </Button>
              </li>
            );
          })}
        </ul>
      )}
      <div className="flex flex-wrap gap-2">
        {days.length > 1 && (
          <Button onClick={() => add({ kind: "endNotBeforeStart", start: days[0]!.key, end: days[1]!.key })}>
            One day not before another
          </Button>
        )}
        {lists.length > 0 && (
          <Button
            onClick={() =>
              add({ kind: "countMatchesRows", count: ofSort("number")[0]?.key ?? "", rows: lists[0]!.key })
            }
          >
            A number that counts a list
          </Button>
        )}
        {asked.length > 0 && (
          <Button
            onClick={() =>
              add({
                kind: "never",
                when: { kind: "isAnswered", of: { kind: "answer", question: asked[0]!.key } },
                at: asked.at(-1)!.key,
                sentence: "",
              })
            }
          >
            Answers that do not go together
          </Button>
        )}
      </div>
    </>
  );
}
