import { useState } from "react";
import { useMutation } from "@tanstack/react-query";
import { ArrowDown, ArrowUp, ChevronDown, ChevronUp, X } from "lucide-react";
import { orProblem, type Schemas } from "../../../api/problem";
import { boxLook, CheckBox, controlLook, SelectBox, TextBox } from "../../../kit/fields";
import { Failure } from "../../../kit/states";
import { api } from "../../../api/client";
import type { AnyQuestion, KindNamed } from "../form";
import { useWorkbench } from "../workbenchContext";
import { FilePicker } from "./FilePicker";
import { Amount } from "./Amount";
import { BandFields } from "./BandFields";
import { Members } from "./Members";

type Option = Schemas["Option"];

interface Props {
  kind: KindNamed<"choice">;
  question: AnyQuestion;
  onChange: (part: Partial<KindNamed<"choice">>) => void;
}

/** The answers a choice offers, in order, with all that can be said of each. */
export function Options({ kind, question, onChange }: Props) {
  const { parts, facts } = useWorkbench();
  const { options } = kind;
  const set = (key: string, part: Partial<Option>) =>
    onChange({ options: options.map((one) => (one.key === key ? { ...one, ...part } : one)) });
  const move = (index: number, by: -1 | 1) => {
    const next = [...options];
    [next[index], next[index + by]] = [next[index + by]!, next[index]!];
    onChange({ options: next });
  };
  const [open, setOpen] = useState<string | null>(null);
  const listed =
    facts.questions[question.key]?.values.filter(({ key }) => !options.some((one) => one.key === key)) ?? [];
  return (
    <Members
      of="QuestionKindChoiceKind"
      half={["several", "dropDown", "atLeast", "atMost"]}
      fields={{
        from: (
          <SelectBox
            label="Answers they can choose"
            value={kind.from ?? ""}
            onChange={(e) => onChange({ from: (e.target.value || null) as typeof kind.from })}
          >
            <option value="">those written here</option>
            <option value="services">your services, and those written here</option>
            <option value="sources">how people find you, and those written here</option>
          </SelectBox>
        ),
        options: (
          <>
            {kind.from && (
              <p className="mb-2 text-slate">
                {listed.length > 0
                  ? `From your settings: ${listed.map((one) => one.label).join(", ")}.`
                  : "Your settings list none yet."}
              </p>
            )}
            <ol aria-label="Answers they can choose" className="divide-y divide-line border-y border-line">
              {options.map((option, index) => (
                <li key={option.key} className="py-1.5">
                  <div className="flex items-center gap-1.5">
                    <input
                      aria-label={`Answer ${index + 1}`}
                      className={`${controlLook} min-w-0 flex-1`}
                      value={option.label}
                      onChange={(e) => set(option.key, { label: e.target.value })}
                      onKeyDown={(e) => {
                        if (!e.altKey || (e.key !== "ArrowUp" && e.key !== "ArrowDown")) return;
                        e.preventDefault();
                        const by = e.key === "ArrowUp" ? -1 : 1;
                        if (options[index + by]) move(index, by);
                      }}
                    />
                    <span className="max-w-28 text-right text-note text-slate">{inShort(option)}</span>
                    <Icon label="Up" of={option} disabled={index === 0} onClick={() => move(index, -1)}>
                      <ArrowUp size={16} aria-hidden />
                    </Icon>
                    <Icon label="Down" of={option} disabled={!options[index + 1]} onClick={() => move(index, 1)}>
                      <ArrowDown size={16} aria-hidden />
                    </Icon>
                    <Icon
                      label={open === option.key ? "Less" : "More"}
                      of={option}
                      expanded={open === option.key}
                      onClick={() => setOpen(open === option.key ? null : option.key)}
                    >
                      {open === option.key ? (
                        <ChevronUp size={16} aria-hidden />
                      ) : (
                        <ChevronDown size={16} aria-hidden />
                      )}
                    </Icon>
                    <Icon
                      label="Remove"
                      of={option}
                      onClick={() => onChange({ options: options.filter((one) => one.key !== option.key) })}
                    >
                      <X size={16} aria-hidden />
                    </Icon>
                  </div>
                  {open === option.key && (
                    <OptionDesk option={option} currency={parts.currency} onChange={(part) => set(option.key, part)} />
                  )}
                </li>
              ))}
            </ol>
            <AddOptions options={options} onAdd={(more) => onChange({ options: [...options, ...more] })} />
          </>
        ),
        several: (
          <CheckBox
            label="Several may be chosen"
            checked={kind.several ?? false}
            onChange={(several) =>
              onChange(several ? { several, dropDown: false } : { several, atLeast: null, atMost: null })
            }
          />
        ),
        dropDown: kind.several ? (
          <span className="text-slate">Several answers stand in a list.</span>
        ) : (
          <CheckBox
            label="As a drop-down"
            checked={kind.dropDown ?? false}
            onChange={(dropDown) => onChange({ dropDown })}
          />
        ),
        atLeast: kind.several ? (
          <Amount label="At least" whole value={kind.atLeast} onChange={(atLeast) => onChange({ atLeast })} />
        ) : (
          <></>
        ),
        atMost: kind.several ? (
          <Amount label="At most" whole value={kind.atMost} onChange={(atMost) => onChange({ atMost })} />
        ) : (
          <></>
        ),
      }}
    />
  );
}

const amount = new Intl.NumberFormat("en");

/** What an answer stands for, on its own line: "1,500 to 4,000", "unsure". */
function inShort({ band, unsure, noneOfThese, ownWords }: Option): string {
  const ends = band && [band.low && amount.format(band.low.value), band.high && amount.format(band.high.value)];
  const range =
    ends &&
    (ends[0] && ends[1] ? `${ends[0]} to ${ends[1]}` : ends[0] ? `from ${ends[0]}` : ends[1] ? `to ${ends[1]}` : "");
  return [range, unsure && "unsure", noneOfThese && "none of these", ownWords && "own words"]
    .filter(Boolean)
    .join(", ");
}

function AddOptions({ options, onAdd }: { options: Option[]; onAdd: (more: Option[]) => void }) {
  const [typed, setTyped] = useState("");
  const add = useMutation({
    mutationFn: (text: string) =>
      orProblem(
        api.POST("/api/forms/typed-options", {
          body: { text, money: options.some((one) => one.band?.currency), taken: options.map((one) => one.key) },
        }),
      ),
    onSuccess: onAdd,
    onError: (_, text) => setTyped((now) => now || text),
  });
  const send = (text: string) => {
    if (!text.trim()) return;
    setTyped("");
    add.mutate(text);
  };
  return (
    <div className="mt-2">
      <input
        aria-label="Add an answer"
        placeholder="Add an answer; paste a list for several"
        className={boxLook}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== "Enter" || add.isPending) return;
          e.preventDefault();
          send(typed);
        }}
        onPaste={(e) => {
          const text = e.clipboardData.getData("text");
          if (!text.includes("\n")) return;
          e.preventDefault();
          send(typed + text);
        }}
      />
      <Failure error={add.error} />
    </div>
  );
}

function OptionDesk(props: { option: Option; currency: string; onChange: (part: Partial<Option>) => void }) {
  const { option, currency, onChange } = props;
  return (
    <div className="my-2 rounded-soft bg-mist p-3">
      <Members
        of="Option"
        fields={{
          label: <p className="text-slate">People read the line above.</p>,
          explanation: (
            <TextBox
              label="A line under it"
              value={option.explanation ?? ""}
              onChange={(e) => onChange({ explanation: e.target.value || null })}
            />
          ),
          band: <BandFields band={option.band ?? null} currency={currency} onChange={(band) => onChange({ band })} />,
          unsure: (
            <CheckBox
              label="It means they don't know yet"
              checked={option.unsure ?? false}
              onChange={(unsure) => onChange({ unsure })}
            />
          ),
          noneOfThese: (
            <CheckBox
              label="It means none of these"
              checked={option.noneOfThese ?? false}
              onChange={(noneOfThese) => onChange({ noneOfThese })}
            />
          ),
          ownWords: (
            <CheckBox
              label="People who choose it say in their own words what they mean"
              checked={option.ownWords ?? false}
              onChange={(ownWords) => onChange({ ownWords })}
            />
          ),
          picture: (
            <FilePicker
              label="A picture beside it"
              groups={["picture"]}
              value={option.picture ?? null}
              onChange={(picture) => onChange({ picture })}
            />
          ),
        }}
      />
    </div>
  );
}

function Icon(props: {
  label: string;
  of: Option;
  disabled?: boolean;
  expanded?: boolean;
  onClick: () => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={`${props.label}: ${props.of.label}`}
      aria-expanded={props.expanded}
      aria-disabled={props.disabled || undefined}
      className="rounded-soft p-1 text-slate hover:text-ink aria-disabled:opacity-40"
      onClick={() => !props.disabled && props.onClick()}
    >
      {props.children}
    </button>
  );
}
