import { useEffect, useId, useRef, useState, type FormEvent } from "react";
import { Problem, sentenceOf } from "../api/problem";
import { mailForLater } from "./client";
import { box, quietButton } from "./controls/control";
import type { LocalDraft } from "./localDraft";

interface Props {
  token: string;
  filling: LocalDraft;
  keepNow: () => Promise<unknown>;
  /** Whether one more mail may come to who has the link sent and does not come back. */
  followsUp: boolean;
  /** Whether the link can be had by mail. */
  mailsLink: boolean;
}

/** A link that brings the answers back in any browser; by mail only to who asks for it. */
export function FinishLater({ token, filling, keepNow, followsUp, mailsLink }: Props) {
  const [open, setOpen] = useState(false);
  const [failure, setFailure] = useState<string | null>(null);
  const { kept } = filling;
  const begin = () => {
    setFailure(null);
    keepNow().then(
      () => setOpen(true),
      (error: unknown) => setFailure(sentenceOf(error)),
    );
  };
  return (
    <div className="mt-6 border-t border-line pt-4">
      {!(kept && open) && (
        <button type="button" onClick={begin} className="min-h-11 underline">
          Finish later
        </button>
      )}
      <div role="status">
        {failure && <p className="font-semibold text-brick">{failure}</p>}
        {kept && open && <Link link={kept.link} until={kept.until} />}
      </div>
      {mailsLink && kept && open && <MailIt token={token} filling={filling} followsUp={followsUp} />}
    </div>
  );
}

function Link({ link, until }: { link: string; until: string }) {
  const [copied, setCopied] = useState(false);
  const line = useRef<HTMLInputElement>(null);
  useEffect(() => line.current?.focus(), []);
  return (
    <>
      <p className="mb-2">
        <strong>Your answers are kept until {until}.</strong> This link brings them back, in any browser. What you add
        is kept, too; after that day all of it is deleted.
      </p>
      <div className="flex flex-wrap gap-2">
        <input
          ref={line}
          readOnly
          aria-label="Link to your answers"
          value={link}
          onFocus={(event) => event.target.select()}
          className={`${box} min-w-0 flex-1`}
        />
        <button
          type="button"
          className={quietButton}
          onClick={() =>
            void navigator.clipboard?.writeText(link).then(
              () => setCopied(true),
              () => {},
            )
          }
        >
          {copied ? "Copied" : "Copy the link"}
        </button>
      </div>
    </>
  );
}

function MailIt({ token, filling, followsUp }: Omit<Props, "keepNow" | "mailsLink">) {
  const id = useId();
  const given = Object.values(filling.answers).find((one) => one.kind === "text" && /^\S+@\S+\.\S+$/.test(one.text));
  const [email, setEmail] = useState(given?.kind === "text" ? given.text : "");
  const [agrees, setAgrees] = useState(false);
  const [wrong, setWrong] = useState<Problem | null>(null);
  const [sentTo, setSentTo] = useState<string | null>(null);
  const errorAt = (place: string) => wrong?.findings.find((one) => one.place === place)?.sentence;

  const send = (event: FormEvent) => {
    event.preventDefault();
    event.stopPropagation();
    setWrong(null);
    mailForLater(token, { sendKey: filling.sendKey, email, agrees }).then(
      () => setSentTo(email),
      (error: unknown) => setWrong(error instanceof Problem ? error : new Problem(0, sentenceOf(error))),
    );
  };
  if (sentTo)
    return (
      <p role="status" className="mt-3">
        The link is on its way to {sentTo}.
      </p>
    );
  return (
    <form noValidate onSubmit={send} className="mt-4 grid gap-2">
      <label htmlFor={id} className="font-semibold">
        Or have it sent to you
      </label>
      {errorAt("email") && <Wrong id={`${id}-error`}>{errorAt("email")!}</Wrong>}
      <input
        id={id}
        type="email"
        autoComplete="email"
        className={box}
        value={email}
        aria-invalid={errorAt("email") ? true : undefined}
        aria-describedby={errorAt("email") ? `${id}-error` : undefined}
        onChange={(event) => setEmail(event.target.value)}
      />
      {errorAt("agrees") && <Wrong id={`${id}-agrees`}>{errorAt("agrees")!}</Wrong>}
      <label className="flex min-h-11 items-center gap-3">
        <input
          type="checkbox"
          className="size-5 shrink-0 accent-[var(--brand)]"
          checked={agrees}
          aria-describedby={errorAt("agrees") ? `${id}-agrees` : undefined}
          onChange={(event) => setAgrees(event.target.checked)}
        />
        <span>
          {followsUp
            ? "Yes, send me this mail, and one more if I do not come back. The address is used for nothing else."
            : "Yes, send me this one mail. The address is used for nothing else."}
        </span>
      </label>
      {wrong && wrong.findings.length === 0 && <Wrong id={`${id}-all`}>{wrong.message}</Wrong>}
      <button type="submit" className={`${quietButton} w-fit`}>
        Send me the link
      </button>
    </form>
  );
}

function Wrong({ id, children }: { id: string; children: string }) {
  return (
    <p id={id} role="alert" className="border-l-4 border-brick pl-2 font-semibold text-brick">
      {children}
    </p>
  );
}
