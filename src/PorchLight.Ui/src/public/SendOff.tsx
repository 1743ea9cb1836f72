import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { sentenceOf } from "../api/problem";
import { askForCall } from "./client";
import type { SentView } from "./views";
import { isEmbedded, toTop } from "./embedding";
import { OwnVideo } from "./PageItem";
import { brandButton } from "./controls/control";

// Only some send-offs offer times: the others need not wait for what shows them.
const Times = lazy(() =>
  import("./meeting/TimesAtSendOff").then(({ TimesAtSendOff }) => ({ default: TimesAtSendOff })),
);

/** How the form ends for this person. */
export function SendOff({ sent, fresh, business }: { sent: SentView; fresh: boolean; business: string }) {
  const title = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    title.current?.focus();
    toTop();
    // Within somebody's page only a click may lead away from it; and who comes back here does not want to be sent off again.
    if (sent.redirect && fresh && !isEmbedded && !sent.writtenDown) location.assign(sent.redirect);
  }, [sent.redirect, sent.writtenDown, fresh]);

  if (sent.writtenDown)
    return (
      <>
        <h1 ref={title} tabIndex={-1} className="mb-3 text-title outline-none">
          It is written down
        </h1>
        <p className="mb-4">Someone filling it in themselves would have seen “{sent.title}”.</p>
        <a href={`/inquiries/${sent.writtenDown}`} target="_top" className={brandButton}>
          Open the inquiry
        </a>
      </>
    );
  return (
    <>
      <p className="mb-1 text-slate">{business}</p>
      <h1 ref={title} tabIndex={-1} className="mb-3 text-title outline-none">
        {sent.title}
      </h1>
      {sent.notice && <p className="mb-3 border-l-4 border-edge pl-3 font-semibold">{sent.notice}</p>}
      {sent.paragraphs.map((paragraph) => (
        <p key={paragraph} className="mb-3">
          {paragraph}
        </p>
      ))}
      {sent.video && <OwnVideo address={sent.video} title={sent.title} />}
      {(sent.button ?? sent.download ?? sent.redirect) && (
        <p className="mt-4 flex flex-wrap gap-x-5 gap-y-2">
          {sent.button && (
            <a href={sent.button.address} target="_top" className={brandButton}>
              {sent.button.label}
            </a>
          )}
          {sent.download && (
            <a href={sent.download.address} className="py-2.5 font-semibold underline">
              {sent.download.label}
            </a>
          )}
          {sent.redirect && (
            <a href={sent.redirect} target="_top" className="py-2.5 font-semibold underline">
              Go on to {new URL(sent.redirect).host}
            </a>
          )}
        </p>
      )}
      {sent.offersTimes && (
        <Suspense fallback={<p className="text-slate">One moment …</p>}>
          <Times receipt={sent.receipt} />
        </Suspense>
      )}
      {sent.nextSteps.length > 0 && (
        <>
          <h2 className="mt-5 mb-2 text-lead">What happens next</h2>
          <ol className="grid list-decimal gap-1.5 pl-6">
            {sent.nextSteps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
        </>
      )}
      {sent.offersCall && <CallOffer receipt={sent.receipt} asked={sent.callAsked} />}
      {sent.waysForward.length > 0 && (
        <>
          <h2 className="mt-5 mb-2 text-lead">Other ways forward</h2>
          <ul className="grid gap-3">
            {sent.waysForward.map((way) => (
              <li key={way.title} className="border-l-4 border-[var(--brand)] pl-3">
                <strong>{way.address ? <a href={way.address}>{way.title}</a> : way.title}</strong>
                <br />
                {way.text}
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}

function CallOffer({ receipt, asked }: { receipt: string; asked: boolean }) {
  const [state, setState] = useState<"open" | "asking" | "asked">(asked ? "asked" : "open");
  const [failure, setFailure] = useState<string | null>(null);
  const ask = () => {
    setState("asking");
    askForCall(receipt).then(
      () => setState("asked"),
      (error: unknown) => {
        setFailure(sentenceOf(error));
        setState("open");
      },
    );
  };
  return (
    <div className="mt-6" aria-live="polite">
      {state === "asked" ? (
        <p className="font-semibold">We have noted that you would like a call.</p>
      ) : (
        <button type="button" disabled={state === "asking"} onClick={ask} className={brandButton}>
          I would like a call
        </button>
      )}
      {failure && <p className="mt-2 text-brick">{failure}</p>}
    </div>
  );
}
