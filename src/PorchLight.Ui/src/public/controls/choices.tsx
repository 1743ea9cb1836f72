import { answerOf, box, Part, type ControlOf, type ControlProps } from "./control";

export function YesOrNo({ id, answer, onChange, described }: ControlProps<"yesNo">) {
  return (
    <div className="grid gap-2 sm:grid-cols-2">
      {[true, false].map((yes) => (
        <Choice
          key={String(yes)}
          id={`${id}-${yes ? "yes" : "no"}`}
          type="radio"
          name={id}
          label={yes ? "Yes" : "No"}
          invalid={described["aria-invalid"]}
          checked={answerOf(answer, "yesNo")?.yes === yes}
          onChange={() => onChange({ kind: "yesNo", yes })}
        />
      ))}
    </div>
  );
}

export function Choices(props: ControlProps<"choice">) {
  const { id, control, answer, onChange, described } = props;
  const { keys: chosen = [], ownWords } = answerOf(answer, "choice") ?? {};
  const asksWords = control.options.some((option) => option.ownWords && chosen.includes(option.key));
  const choose = (keys: string[]) =>
    onChange(keys.length === 0 ? undefined : { kind: "choice", keys, ownWords: ownWords ?? null });
  return (
    <>
      {control.dropDown && !control.several ? (
        <select
          id={id}
          className={box}
          value={chosen[0] ?? ""}
          onChange={({ target: { value } }) => choose(value ? [value] : [])}
          {...described}
        >
          <option value="">Please choose</option>
          {control.options.map((option) => (
            <option key={option.key} value={option.key}>
              {option.label}
            </option>
          ))}
        </select>
      ) : (
        <div className={`grid gap-2 ${control.options.some((option) => option.picture) ? "sm:grid-cols-2" : ""}`}>
          {control.options.map((option) => (
            <Choice
              key={option.key}
              id={`${id}-${option.key}`}
              type={control.several ? "checkbox" : "radio"}
              name={id}
              label={option.label}
              explanation={option.explanation}
              picture={option.picture}
              invalid={described["aria-invalid"]}
              checked={chosen.includes(option.key)}
              onChange={(on) => choose(control.several ? toggled(control, chosen, option.key, on) : [option.key])}
            />
          ))}
        </div>
      )}
      {asksWords && (
        <div className="mt-2">
          <Part label="In your own words">
            <input
              type="text"
              className={box}
              value={ownWords ?? ""}
              onChange={({ target: { value } }) =>
                onChange({ kind: "choice", keys: chosen, ownWords: value === "" ? null : value })
              }
              {...described}
            />
          </Part>
        </div>
      )}
    </>
  );
}

export function Consent({ id, control, answer, onChange, described }: ControlProps<"consent">) {
  return (
    <Choice
      id={`${id}-agreed`}
      type="checkbox"
      name={id}
      label={control.statement}
      invalid={described["aria-invalid"]}
      checked={answerOf(answer, "consent") !== undefined}
      onChange={(on) => onChange(on ? { kind: "consent", wording: "", version: 0 } : undefined)}
    />
  );
}

/** What does not go together with an option is taken back when it is chosen. */
function toggled({ options }: ControlOf<"choice">, chosen: string[], key: string, on: boolean): string[] {
  if (!on) return chosen.filter((one) => one !== key);
  const notWith = options.find((option) => option.key === key)?.notWith ?? [];
  return [...chosen.filter((one) => !notWith.includes(one)), key];
}

export function Choice(props: {
  id: string;
  type: "radio" | "checkbox";
  name: string;
  label: string;
  explanation?: string | null;
  picture?: string | null;
  checked: boolean;
  invalid: true | undefined;
  onChange: (on: boolean) => void;
}) {
  return (
    <label
      className={`block cursor-pointer overflow-hidden rounded-soft border bg-card has-checked:border-[var(--brand)] has-checked:shadow-[inset_0_0_0_1px_var(--brand)] has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-dusk ${props.invalid ? "border-2 border-brick" : "border-edge"}`}
    >
      {props.picture && <img src={props.picture} alt="" className="block h-32 w-full object-cover" />}
      <span className="flex min-h-11 items-center gap-3 px-3 py-2">
        <input
          type={props.type}
          name={props.name}
          checked={props.checked}
          onChange={({ target }) => props.onChange(target.checked)}
          className="size-5 shrink-0 accent-[var(--brand)] outline-none"
          aria-labelledby={`${props.id}-label`}
          aria-describedby={props.explanation ? `${props.id}-explanation` : undefined}
        />
        <span className="min-w-0">
          <span id={`${props.id}-label`}>{props.label}</span>
          {props.explanation && (
            <span id={`${props.id}-explanation`} className="block text-slate">
              {props.explanation}
            </span>
          )}
        </span>
      </span>
    </label>
  );
}
