import { answerOf, box, Part, type AnswerOf, type ControlProps } from "./control";

export function PersonName({ answer, onChange, described }: ControlProps<"personName">) {
  const name = answerOf(answer, "personName") ?? { given: "", family: "" };
  const set = (given: string, family: string) =>
    onChange(given === "" && family === "" ? undefined : { kind: "personName", given, family });
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      <Part label="First name">
        <input
          type="text"
          autoComplete="given-name"
          className={box}
          value={name.given}
          onChange={({ target }) => set(target.value, name.family)}
          {...described}
        />
      </Part>
      <Part label="Family name">
        <input
          type="text"
          autoComplete="family-name"
          className={box}
          value={name.family}
          onChange={({ target }) => set(name.given, target.value)}
          {...described}
        />
      </Part>
    </div>
  );
}

const parts = [
  ["street", "Street and number", "address-line1"],
  ["unit", "Flat, floor or unit", "address-line2"],
  ["city", "Town or city", "address-level2"],
  ["region", "County or region", "address-level1"],
  ["postalCode", "Postal code", "postal-code"],
  ["country", "Country", "country-name"],
] as const;

const nowhere: AnswerOf<"address"> = {
  kind: "address",
  street: null,
  unit: null,
  city: null,
  region: null,
  postalCode: null,
  country: null,
};

export function Address({ answer, onChange, described }: ControlProps<"address">) {
  const address = answerOf(answer, "address") ?? nowhere;
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      {parts.map(([part, label, autoComplete]) => (
        <Part key={part} label={label}>
          <input
            type="text"
            autoComplete={autoComplete}
            className={box}
            value={address[part] ?? ""}
            onChange={({ target }) => {
              const next = { ...address, [part]: target.value || null };
              onChange(parts.some(([one]) => next[one]) ? next : undefined);
            }}
            {...described}
          />
        </Part>
      ))}
    </div>
  );
}
