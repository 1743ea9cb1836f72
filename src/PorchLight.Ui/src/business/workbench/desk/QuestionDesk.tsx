import { Link } from "react-router";
import type { Schemas } from "../../../api/problem";
import { CheckBox, SelectBox, TextBox } from "../../../kit/fields";
import { ConditionEditor } from "../conditions/ConditionEditor";
import { changeItem, type AnyQuestion, type Question } from "../form";
import { KnownWords } from "../../messages/words";
import { useWorkbench } from "../workbenchContext";
import { KindLimits } from "./KindLimits";
import { KindPicker } from "./KindPicker";
import { KnownTextBox } from "./KnownTextBox";
import { LandsInPicker } from "./LandsInPicker";
import { Members } from "./Members";
import { Part, Sheet } from "./Sheet";
import { WidthBox } from "./WidthBox";

interface Props {
  question: AnyQuestion;
  /** The question whose rows ask it; undefined on a page. */
  rows?: Question;
}

/** Everything that can be said of a question, in one place. */
export function QuestionDesk({ question, rows }: Props) {
  const { id, form, facts, edit } = useWorkbench();
  const { key } = question;
  const known = facts.questions[key];
  const change = (part: Partial<Question>, member: string) =>
    edit((now) => changeItem(now, key, part), `${key}.${member}`);
  const words = (member: "help" | "placeholder") => (value: string) => change({ [member]: value || null }, member);
  const place = { at: "item" as const, key };
  return (
    <Sheet title={titleOf()} place={key}>
      <Members
        of="ItemQuestion"
        half={["width"]}
        fields={{
          wording: (
            <KnownTextBox
              label="What you ask"
              look="font-head text-lead"
              value={question.wording}
              onChange={(wording) => change({ wording }, "wording")}
              place={key}
            />
          ),
          help: <KnownTextBox label="Help text" value={question.help ?? ""} onChange={words("help")} place={key} />,
          required: (
            <Part title="How it is answered">
              <KindPicker question={question} inRows={rows !== undefined} />
              <div className="mt-3">
                <KindLimits question={question} onChange={(kind) => change({ kind }, "kind")} />
              </div>
              {known?.mayBeRequired !== false && (
                <CheckBox
                  label="It must be answered"
                  checked={question.required ?? false}
                  onChange={(required) => change({ required }, "required")}
                />
              )}
            </Part>
          ),
          requiredWhen:
            known?.mayBeRequired === false || question.required ? (
              <></>
            ) : (
              <ConditionEditor
                value={question.requiredWhen}
                onChange={(requiredWhen) => change({ requiredWhen }, "requiredWhen")}
                place={place}
                without="It may be left blank."
                begin="It must be answered when …"
                label="It must be answered when"
              />
            ),
          askedOnlyWhen: (
            <Part title="When it is asked">
              <ConditionEditor
                value={question.askedOnlyWhen}
                onChange={(askedOnlyWhen) => change({ askedOnlyWhen }, "askedOnlyWhen")}
                place={place}
                without="Always."
                begin="Ask it only when …"
                label="Asked only when"
              />
            </Part>
          ),
          landsIn: rows ? (
            <p className="text-slate">What each line asks lands with its list.</p>
          ) : (
            <Part title="Where it lands">
              <LandsInPicker question={question} onChange={(landsIn) => change({ landsIn }, "landsIn")} />
            </Part>
          ),
          prefill: rows ? (
            <></>
          ) : (
            <Part title="Prefilled with">
              <PrefillFields
                value={question.prefill ?? null}
                fields={known?.fields ?? []}
                onChange={(prefill) => change({ prefill }, "prefill")}
              />
            </Part>
          ),
          placeholder: (
            <TextBox
              label="An example in the empty box"
              value={question.placeholder ?? ""}
              onChange={(e) => words("placeholder")(e.target.value)}
            />
          ),
          width: <WidthBox value={question.width} onChange={(width) => change({ width }, "width")} />,
        }}
      />
      {!rows && (
        <Part title="What it says about fit">
          {known && known.signals.length > 0 ? (
            <ul className="grid gap-1">
              {known.signals.map((signal) => (
                <li key={signal}>{signal}.</li>
              ))}
            </ul>
          ) : (
            <p className="text-slate">Nothing.</p>
          )}
          <Link className="mt-1 inline-block underline" to={`/forms/${id}/screening?about=${key}`}>
            {known && known.signals.length > 0 ? "Change it in the screening" : "Say it in the screening"}
          </Link>
        </Part>
      )}
    </Sheet>
  );

  function titleOf(): string {
    if (rows) return `Asked in each line of “${KnownWords.plain(rows.wording)}”`;
    const asked = form.items.filter((item) => item.item === "question");
    const here = asked.findIndex((item) => item.key === key);
    const page = form.pages.find((one) => one.key === asked[here]?.page);
    return `Question ${here + 1}, page ${page && KnownWords.plain(page.title || "without a title")}`;
  }
}

interface PrefillProps {
  value: Schemas["Prefill"] | null;
  /** The keys of the fields whose values it can show. */
  fields: string[];
  onChange: (value: Schemas["Prefill"] | null) => void;
}

function PrefillFields({ value, fields, onChange }: PrefillProps) {
  const { parts } = useWorkbench();
  const fitting = parts.fields.filter((field) => fields.includes(field.key));
  return (
    <div className="grid grid-cols-2 items-end gap-4">
      <SelectBox
        label="Filled in from"
        value={value?.kind ?? ""}
        onChange={(e) =>
          onChange(
            e.target.value === "address"
              ? { kind: "address", parameter: "" }
              : e.target.value === "record"
                ? { kind: "record", field: fitting[0]?.key ?? "" }
                : null,
          )
        }
      >
        <option value="">nothing</option>
        <option value="address">the link they came by</option>
        {(fitting.length > 0 || value?.kind === "record") && (
          <option value="record">what you know of them (personal links only)</option>
        )}
      </SelectBox>
      {value?.kind === "address" && (
        <Members
          of="PrefillFromAddress"
          fields={{
            parameter: (
              <TextBox
                label="Its name in the link"
                placeholder="like service"
                value={value.parameter}
                onChange={(e) => onChange({ ...value, parameter: e.target.value })}
              />
            ),
          }}
        />
      )}
      {value?.kind === "record" && (
        <Members
          of="PrefillFromRecord"
          fields={{
            field: (
              <SelectBox
                label="The field"
                value={value.field}
                onChange={(e) => onChange({ ...value, field: e.target.value })}
              >
                {fitting.map((field) => (
                  <option key={field.key} value={field.key}>
                    {field.label}
                  </option>
                ))}
              </SelectBox>
            ),
          }}
        />
      )}
    </div>
  );
}
