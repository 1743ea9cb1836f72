import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { type Schemas } from "../../api/problem";
import { controlLook, SelectBox, TextBox } from "../../kit/fields";
import { api } from "../../api/client";
import { WeekFields } from "./WeekFields";

/** Fields of a part of the settings: its values, what is wrong with them, and how they change. */
interface Fields<T> {
  value: T;
  findings: Map<string, string>;
  onChange: (part: Partial<T>) => void;
}

/** Who the business is. */
export function CardFields({ value, findings, onChange }: Fields<Schemas["BusinessCard"]>) {
  const choices = useQuery({ ...ask(["choices"], () => api.GET("/api/choices")), staleTime: Infinity });
  const box = (name: keyof Schemas["BusinessCard"]) => ({
    value: value[name],
    error: findings.get(name),
    onChange: (e: { target: { value: string } }) => onChange({ [name]: e.target.value }),
  });
  const picker = (name: "zone" | "region" | "currency", all: Schemas["NamedCode"][] | undefined) => (
    <>
      <option value="">choose …</option>
      {all?.map(({ code, name: words }) => (
        <option key={code} value={code}>
          {name === "currency" ? `${words} (${code})` : words}
        </option>
      ))}
      {value[name] && !all?.some(({ code }) => code === value[name]) && (
        <option value={value[name]}>{value[name]}</option>
      )}
    </>
  );
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <TextBox label="Business" help="The name your clients know." autoComplete="organization" {...box("name")} />
      <TextBox
        label="Your name"
        help="Used as the signature under your messages."
        autoComplete="name"
        {...box("ownerName")}
      />
      <TextBox
        label="E-mail"
        help="Your messages are sent from it."
        type="email"
        autoComplete="email"
        {...box("mailAddress")}
      />
      <SelectBox label="Country" help="For phone numbers without a country code." {...box("region")}>
        {picker("region", choices.data?.countries)}
      </SelectBox>
      <SelectBox label="Currency" help="For prices and budgets." {...box("currency")}>
        {picker("currency", choices.data?.currencies)}
      </SelectBox>
      <SelectBox label="Time zone" help="Used for your hours and deadlines." {...box("zone")}>
        {picker("zone", choices.data?.zones)}
      </SelectBox>
      <TextBox
        label="Address of your forms"
        help="The start of every link, like https://forms.example.com. Leave empty while you use Porch Light on one computer only."
        inputMode="url"
        autoComplete="off"
        {...box("publicAddress")}
      />
    </div>
  );
}

/** When the business works and sends. */
export function HoursFields({ value, findings, onChange }: Fields<Schemas["OpeningWords"]>) {
  return (
    <div className="grid gap-5">
      <fieldset>
        <legend className="font-semibold">Weekly hours</legend>
        <p className="mb-2 text-slate">
          Like 9-5, or 9 to 12:30, 13:30 to 17:30 with a break. Leave a day empty when you are closed.
        </p>
        <WeekFields value={value} findings={findings} onChange={onChange} />
      </fieldset>
      <TextBox
        label="Closed days"
        help="Like 24 December 2026 to 3 January 2027, or 24.12.2026."
        value={value.closed}
        error={findings.get("closed")}
        onChange={(e) => onChange({ closed: e.target.value })}
      />
      <fieldset>
        <legend className="font-semibold">Messages go out</legend>
        <p className="mb-2 text-slate">Working days only. Anything due at other times waits until then.</p>
        <div className="flex items-center gap-2">
          {(["sendFrom", "sendTo"] as const).map((end) => (
            <label key={end} className="flex items-center gap-2">
              <span>{end === "sendFrom" ? "from" : "to"}</span>
              <input
                className={`${controlLook} w-24`}
                value={value[end]}
                aria-invalid={findings.has("sendFrom") ? true : undefined}
                onChange={(e) => onChange({ [end]: e.target.value })}
              />
            </label>
          ))}
        </div>
        {findings.has("sendFrom") && <p className="mt-1 font-semibold text-brick">{findings.get("sendFrom")}</p>}
      </fieldset>
    </div>
  );
}

/** How fast the business says it answers. */
export function PromiseFields({ value, findings, onChange }: Fields<Schemas["ReplyPromise"]>) {
  return (
    <div className="grid items-start gap-4 sm:grid-cols-2">
      <TextBox
        label="You answer within"
        help="In hours, from 1 to 480."
        type="number"
        min={1}
        max={480}
        value={value.hours || ""}
        error={findings.get("hours")}
        onChange={(e) => onChange({ hours: Math.trunc(Number(e.target.value)) })}
      />
      <SelectBox
        label="Which hours count"
        help="On closed days no hours count."
        value={value.clock}
        onChange={(e) => onChange({ clock: e.target.value as Schemas["PromiseClock"] })}
      >
        <option value="workingDays">All day on working days</option>
        <option value="openHours">Only the hours you are open</option>
      </SelectBox>
    </div>
  );
}
