import { lazy, Suspense } from "react";
import { Choices, Consent, YesOrNo } from "./controls/choices";
import { isGroup, type ControlKind, type ControlProps, type Described, type FieldProps } from "./controls/control";
import { DayLine, DayRange } from "./controls/dates";
import { Address, PersonName } from "./controls/names";
import { MoneyLine, NumberLine, ScaleLine, WorkedOutValue } from "./controls/numbers";
import { Rows } from "./controls/Rows";
import { PhoneLine, TextLine, TextLines } from "./controls/texts";
import { useQuestionContext } from "./questionContext";

// Heavy ones come only where they are asked for.
const Files = lazy(() => import("./controls/Files"));
const LookUp = lazy(() => import("./controls/LookUp"));
const Signature = lazy(() => import("./controls/Signature"));

export const widths = { full: "sm:col-span-6", half: "sm:col-span-3", third: "sm:col-span-2" } as const;

/** One question with its help, its control and what is wrong with the answer; nothing while it is not asked. */
export function QuestionField({ question, place, isNew = false, answer, onChange }: FieldProps) {
  const { shown, required, errors, step } = useQuestionContext();
  if (!shown.has(place) && !(isNew && question.always)) return null;
  const id = `q-${place}`;
  const error = errors.get(place);
  const notice = step.notices[place];
  const help = step.helps[place] ?? question.help;
  const describedBy =
    [help ? `${id}-help` : "", error ? `${id}-error` : "", notice ? `${id}-notice` : ""].filter(Boolean).join(" ") ||
    undefined;
  const described: Described = { "aria-describedby": describedBy, "aria-invalid": error ? true : undefined };
  const isOptional = !isNew && !required.has(place) && question.control.kind !== "workedOut";
  const head = (
    <>
      {step.wordings[place] ?? question.wording}{" "}
      {isOptional && <span className="font-normal text-slate">optional</span>}
    </>
  );
  const notes = (
    <>
      {help && (
        <p id={`${id}-help`} className="mb-1.5 text-slate">
          {help}
        </p>
      )}
      {error && (
        <p id={`${id}-error`} className="mb-1.5 border-l-4 border-brick pl-2 font-semibold text-brick">
          {error}
        </p>
      )}
    </>
  );
  const noticed = (
    <p id={`${id}-notice`} role="status" className={notice ? "mt-1.5 border-l-4 border-edge pl-2" : "sr-only"}>
      {notice}
    </p>
  );
  const { placeholder } = question;
  const control =
    "statement" in question.control && step.statements[place]
      ? { ...question.control, statement: step.statements[place] }
      : question.control;
  const drawn = (
    <Suspense fallback={<p className="text-slate">One moment …</p>}>
      <Draw {...({ id, place, control, placeholder, answer, onChange, described } as ControlProps<ControlKind>)} />
    </Suspense>
  );

  return isGroup(question) ? (
    <fieldset
      id={id}
      tabIndex={-1}
      data-place={place}
      className={`mb-6 min-w-0 border-0 p-0 ${widths[question.width]}`}
      aria-describedby={describedBy}
    >
      <legend className="mb-1 p-0 text-section font-semibold">{head}</legend>
      {notes}
      {drawn}
      {noticed}
    </fieldset>
  ) : (
    <div data-place={place} className={`mb-6 min-w-0 ${widths[question.width]}`}>
      <label htmlFor={id} className="mb-1 block text-section font-semibold">
        {head}
      </label>
      {notes}
      {drawn}
      {noticed}
    </div>
  );
}

function Draw(props: ControlProps<ControlKind>) {
  const of = <K extends ControlKind>() => props as unknown as ControlProps<K>;
  switch (props.control.kind) {
    case "line":
    case "email":
    case "webAddress":
      return <TextLine {...of<"line">()} />;
    case "lines":
      return <TextLines {...of<"lines">()} />;
    case "phone":
      return <PhoneLine {...of<"phone">()} />;
    case "number":
      return <NumberLine {...of<"number">()} />;
    case "money":
      return <MoneyLine {...of<"money">()} />;
    case "scale":
      return <ScaleLine {...of<"scale">()} />;
    case "date":
      return <DayLine {...of<"date">()} />;
    case "dateRange":
      return <DayRange {...of<"dateRange">()} />;
    case "yesNo":
      return <YesOrNo {...of<"yesNo">()} />;
    case "choice":
      return <Choices {...of<"choice">()} />;
    case "lookUp":
      return <LookUp {...of<"lookUp">()} />;
    case "personName":
      return <PersonName {...of<"personName">()} />;
    case "address":
      return <Address {...of<"address">()} />;
    case "files":
      return <Files {...of<"files">()} />;
    case "rows":
      return <Rows {...of<"rows">()} Field={QuestionField} />;
    case "consent":
      return <Consent {...of<"consent">()} />;
    case "signature":
      return <Signature {...of<"signature">()} />;
    case "workedOut":
      return <WorkedOutValue {...of<"workedOut">()} />;
  }
}
