import { answerOf, box, type ControlProps } from "./control";

type TextProps = ControlProps<"line"> | ControlProps<"email"> | ControlProps<"webAddress">;

const looks = {
  line: { type: "text" },
  email: { type: "email", autoComplete: "email", inputMode: "email" },
  webAddress: { type: "text", autoComplete: "url", inputMode: "url", autoCapitalize: "none" },
} as const;

export function TextLine({ id, control, placeholder, answer, onChange, described }: TextProps) {
  return (
    <input
      id={id}
      {...looks[control.kind]}
      className={box}
      placeholder={placeholder ?? undefined}
      value={answerOf(answer, "text")?.text ?? ""}
      onChange={({ target: { value } }) => onChange(value === "" ? undefined : { kind: "text", text: value })}
      {...described}
    />
  );
}

export function TextLines({ id, placeholder, answer, onChange, described }: ControlProps<"lines">) {
  return (
    <textarea
      id={id}
      rows={5}
      className={box}
      placeholder={placeholder ?? undefined}
      value={answerOf(answer, "text")?.text ?? ""}
      onChange={({ target: { value } }) => onChange(value === "" ? undefined : { kind: "text", text: value })}
      {...described}
    />
  );
}

export function PhoneLine({ id, placeholder, answer, onChange, described }: ControlProps<"phone">) {
  return (
    <input
      id={id}
      type="tel"
      autoComplete="tel"
      className={box}
      placeholder={placeholder ?? undefined}
      value={answerOf(answer, "phone")?.typed ?? ""}
      onChange={({ target: { value } }) =>
        onChange(value === "" ? undefined : { kind: "phone", typed: value, localOnly: false })
      }
      {...described}
    />
  );
}
