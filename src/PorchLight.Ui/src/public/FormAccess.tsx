import { useId, useState, type FormEvent, type ReactNode } from "react";
import { sentenceOf } from "../api/problem";
import { checkCode, sendCode, subscribeToReopening } from "./client";
import type { FormPageView } from "./views";
import { box, brandButton, quietButton } from "./controls/control";
import { keepPass } from "./localDraft";

/** What stands before a form that does not open (yet). */
export function FormAccess({ token, door, onOpen }: { token: string; door: FormPageView; onOpen: () => void }) {
  switch (door.welcome) {
    case "codeNeeded":
      return <CodeEntry token={token} door={door} onOpen={onOpen} />;
    case "lightOff":
      return (
        <Quiet title={`${door.title}: the light is off`} note={door.note}>
          {door.tellsWhenOpen && <TellMe token={token} />}
        </Quiet>
      );
    case "linkUsed":
      return <Quiet title="Sent already" note={door.note} />;
    case "linkRanOut":
      return <Quiet title="This link has run out" note={door.note} />;
    default:
      return <Quiet title={door.title} note={door.note} />;
  }
}

/** Something to be read, when there is nothing to be filled in. */
export function Quiet({ title, note, children }: { title: string; note: string; children?: ReactNode }) {
  return (
    <>
      <h1 className="mb-3 text-title">{title}</h1>
      <p className="whitespace-pre-line">{note}</p>
      {children}
    </>
  );
}

interface LineProps {
  label: string;
  help?: string;
  button: string;
  type: "email" | "text";
  autoComplete: string;
  act: (value: string) => Promise<unknown>;
}

/** One line and a button, with what is wrong beside the line. */
function OneLine({ label, help, button, type, autoComplete, act }: LineProps) {
  const id = useId();
  const [value, setValue] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (busy) return;
    setBusy(true);
    setWrong(null);
    act(value)
      .catch((error: unknown) => setWrong(sentenceOf(error)))
      .finally(() => setBusy(false));
  };
  return (
    <form noValidate onSubmit={submit} className="mt-6 grid max-w-md gap-1.5">
      <label htmlFor={id} className="text-section font-semibold">
        {label}
      </label>
      {help && (
        <p id={`${id}-help`} className="text-slate">
          {help}
        </p>
      )}
      <p
        id={`${id}-error`}
        role="alert"
        className={wrong ? "border-l-4 border-brick pl-2 font-semibold text-brick" : ""}
      >
        {wrong}
      </p>
      <input
        id={id}
        type={type}
        inputMode={type === "text" ? "numeric" : undefined}
        autoComplete={autoComplete}
        className={box}
        value={value}
        aria-invalid={wrong ? true : undefined}
        aria-describedby={[help ? `${id}-help` : "", wrong ? `${id}-error` : ""].filter(Boolean).join(" ") || undefined}
        onChange={(event) => setValue(event.target.value)}
      />
      <button type="submit" aria-disabled={busy} className={`${brandButton} mt-2 w-fit`}>
        {button}
      </button>
    </form>
  );
}

function TellMe({ token }: { token: string }) {
  const [told, setTold] = useState(false);
  if (told)
    return (
      <p role="status" className="mt-6 font-semibold">
        We write to you once, when the light is on again.
      </p>
    );
  return (
    <OneLine
      label="Tell me when you are open again"
      help="One mail, and then your address is forgotten."
      button="Tell me"
      type="email"
      autoComplete="email"
      act={(email) => subscribeToReopening(token, email).then(() => setTold(true))}
    />
  );
}

function CodeEntry({ token, door, onOpen }: { token: string; door: FormPageView; onOpen: () => void }) {
  const [asked, setAsked] = useState(0);
  const [failure, setFailure] = useState<string | null>(null);
  const ask = () => {
    setFailure(null);
    sendCode(token).then(
      () => setAsked((before) => before + 1),
      (error: unknown) => setFailure(sentenceOf(error)),
    );
  };
  return (
    <Quiet title={door.title} note={door.note}>
      <p role="status" className="mt-3">
        {asked > 0 && `A code is on its way to ${door.codeGoesTo}. It is good for a quarter of an hour.`}
      </p>
      {failure && (
        <p role="alert" className="mt-2 border-l-4 border-brick pl-2 font-semibold text-brick">
          {failure}
        </p>
      )}
      {asked > 0 && (
        <OneLine
          label="The code from the mail"
          button="Open the form"
          type="text"
          autoComplete="one-time-code"
          act={(code) =>
            checkCode(token, code).then(({ pass }) => {
              keepPass(token, pass);
              onOpen();
            })
          }
        />
      )}
      <button type="button" onClick={ask} className={`${quietButton} mt-4`}>
        {asked > 0 ? "Send another code" : `Send a code to ${door.codeGoesTo}`}
      </button>
    </Quiet>
  );
}
