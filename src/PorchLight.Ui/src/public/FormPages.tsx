import { lazy, Suspense, useEffect, useEffectEvent, useRef, useState, type FormEvent } from "react";
import { Problem, sentenceOf, type Finding } from "../api/problem";
import { LightMark } from "../kit/marks";
import { evaluate, send } from "./client";
import type { FormPageView, PublicForm, PublicItem, SentView } from "./views";
import { NotForUs } from "./Cover";
import { QuestionContext } from "./questionContext";
import { ErrorSummary } from "./ErrorSummary";
import { FinishLater } from "./FinishLater";
import { addressWith, toTop, within } from "./embedding";
import { PageItem } from "./PageItem";
import { Review } from "./Review";
import { useFormSession } from "./useFormSession";
import { useSpamProof } from "./useSpamProof";
import { brandButton } from "./controls/control";

const SpamProof = lazy(() => import("./SpamProof"));

const retryMs = 10_000;

interface Props {
  token: string;
  door: FormPageView;
  form: PublicForm;
  onSent: (sent: SentView) => void;
  /** Whether they come from the cover: the first page then takes the focus. */
  fromCover?: boolean;
}

/** The pages of questions. What is asked is the server's to say; here it is drawn and kept. */
export function FormPages({ token, door, form, onSent, fromCover = false }: Props) {
  const way = useFormSession(token, form);
  const { filling, step, review, refusal } = way;
  const [busy, setBusy] = useState(false);
  const busyNow = useRef(false);
  // Whether the answers wait here for the line to come back.
  const [waits, setWaits] = useState(false);
  const heading = useRef<HTMLHeadingElement>(null);
  const [trap, setTrap] = useState("");
  const proof = useSpamProof();
  const [proofs, setProofs] = useState(0);

  // The title of a page that was turned to takes the focus.
  useEffect(() => {
    if (way.turns === 0 && !fromCover) return;
    heading.current?.focus();
    toTop();
  }, [way.turns, fromCover]);

  const page = form.pages.find((one) => one.key === filling.page) ?? form.pages[0]!;
  const isFirst = page.key === way.firstPage;
  const isLast = step.pages.includes(page.key) && step.next === null;
  const errors = new Map(refusal?.findings.map((finding) => [finding.place, finding.sentence]));
  const onThisPage = (finding: Finding) => page.items.some((item) => item.key === keyOf(finding.place));
  const title = step.wordings[page.key] ?? page.title;

  const sendAll = async () => {
    const known = new Set([
      ...form.pages.flatMap((one) => one.items.map((item) => item.key)),
      ...Object.keys(form.prefilled),
      ...Object.keys(form.kept?.answers ?? {}),
    ]);
    const answers = Object.fromEntries(Object.entries(filling.answers).filter(([key]) => known.has(key)));
    const sending = {
      version: filling.version,
      sendKey: filling.sendKey,
      answers,
      cameFrom: within,
      ticket: form.ticket,
      trap,
      proof: form.proof ? await proof.current() : null,
    };
    // Whoever is faster than people waits; what was brought back from before is sent quickly by people, too.
    const sent = await send(token, sending).catch(async (error: unknown) => {
      if (!(error instanceof Problem) || !error.retryAfter) throw error;
      const seconds = error.retryAfter;
      await new Promise((resolve) => setTimeout(resolve, seconds * 1000));
      return send(token, sending);
    });
    way.done();
    // A reload shows how it ended, and not an empty form.
    if (sent.receipt) history.replaceState({}, "", addressWith("sent", sent.receipt));
    onSent(sent);
  };

  const { version, answers, sendKey } = filling;
  const look = (key: string, leaving: boolean) => evaluate(token, { version, sendKey, answers, page: key, leaving });
  const leave = () => look(page.key, true);

  const goOn = async () => {
    if (review) return sendAll();
    const left = await leave();
    if (left.summary) return way.refuse(left.summary, left.findings);
    if (left.next) {
      way.setStep(await look(left.next, false));
      return way.turnTo(left.next);
    }
    if (left.review) return way.showReview(left.review);
    return sendAll();
  };

  const act = () => {
    if (busyNow.current) return;
    busyNow.current = true;
    setBusy(true);
    setWaits(false);
    goOn()
      .catch((error: unknown) => {
        const found = error instanceof Problem ? error.findings : [];
        const elsewhere = found.find((finding) => !onThisPage(finding));
        const home =
          elsewhere && form.pages.find((one) => one.items.some((item) => item.key === keyOf(elsewhere.place)));
        if (home) way.turnTo(home.key);
        setTrap("");
        const unheard = error instanceof Problem && error.status === 0;
        if (!unheard && proof.spend()) setProofs((before) => before + 1);
        setWaits(unheard && (isLast || review !== null));
        way.refuse(sentenceOf(error), found);
      })
      .finally(() => {
        busyNow.current = false;
        setBusy(false);
      });
  };
  const again = useEffectEvent(act);

  // Sending is tried again by itself: the send key makes sure that it counts once.
  useEffect(() => {
    if (!waits) return;
    const retry = () => again();
    const timer = setInterval(retry, retryMs);
    addEventListener("online", retry);
    return () => {
      clearInterval(timer);
      removeEventListener("online", retry);
    };
  }, [waits]);

  // What was posted from elsewhere is open where it needs another look; that is said at once.
  const lookAtOnce = useEffectEvent(() =>
    leave().then(
      (left) => left.summary && way.refuse(left.summary, left.findings),
      () => {}, // The way on says what is wrong.
    ),
  );
  useEffect(() => {
    if (new URLSearchParams(location.search).get("look") === "1") void lookAtOnce();
  }, []);

  const turnBack = () =>
    review ? way.turnBackTo(page.key) : way.turnBackTo(step.pages[step.pages.indexOf(page.key) - 1] ?? way.firstPage);

  return (
    <QuestionContext
      value={{
        token,
        version: filling.version,
        sendKey: filling.sendKey,
        step,
        shown: new Set(step.shown),
        required: new Set(step.required),
        errors,
      }}
    >
      <form
        noValidate
        onSubmit={(event: FormEvent) => {
          event.preventDefault();
          act();
        }}
      >
        {isFirst && !review && !form.cover ? (
          <>
            <p className="mb-1 text-slate">{door.business}</p>
            <h1 className="mb-2 text-title">{door.title}</h1>
            <p className="mb-5 whitespace-pre-line">{form.intro}</p>
            <NotForUs form={form} />
          </>
        ) : (
          <h1 className="mb-2 font-body text-base font-normal text-slate">
            {door.business}: {door.title}
          </h1>
        )}
        <div
          className="mb-4 flex flex-wrap items-center gap-1.5"
          role="img"
          aria-label={`Page ${form.pages.indexOf(page) + 1} of ${form.pages.length}`}
        >
          {form.pages.map((one, index) => (
            <LightMark key={one.key} lit={index <= form.pages.indexOf(page)} />
          ))}
        </div>
        {way.later.lost && (
          <p role="alert" className="mb-4 rounded-soft border-2 border-brick p-3 font-semibold text-brick">
            {way.later.lost}
          </p>
        )}
        <h2 ref={heading} tabIndex={-1} className="mb-4 text-lead outline-none">
          {review ? "Have we got this right?" : title || <span className="sr-only">The next questions</span>}
        </h2>
        {refusal && (
          <ErrorSummary
            sentence={
              waits
                ? `${refusal.sentence} We go on trying by ourselves while this page is open.`
                : (mended(refusal.total, refusal.findings.length) ?? refusal.sentence)
            }
            findings={refusal.findings.filter(onThisPage)}
            refusals={refusal.count}
            wordingOf={(place) => wordingOf(page.items, place, step.wordings)}
          />
        )}
        {review ? (
          <Review pages={review} onChange={way.turnTo} />
        ) : (
          <div className="grid grid-cols-1 items-end gap-x-4 sm:grid-cols-6">
            {page.items.map((item) => (
              <PageItem
                key={item.key}
                item={item}
                answer={filling.answers[item.key]}
                onChange={(given) => way.answer(item.key, given)}
              />
            ))}
          </div>
        )}
        {/* Programs that fill in everything fill in this, too. */}
        <div aria-hidden="true" className="absolute -left-[200vw] h-0 overflow-hidden">
          <label>
            Leave this empty
            <input
              name="your-website-again"
              tabIndex={-1}
              autoComplete="off"
              value={trap}
              onChange={({ target }) => setTrap(target.value)}
            />
          </label>
        </div>
        {form.proof && (review || (isLast && !form.review)) && (
          <Suspense fallback={<p className="mb-5 text-slate">One moment …</p>}>
            <SpamProof key={proofs} token={token} onProof={proof.note} />
          </Suspense>
        )}
        <div className="flex flex-wrap items-center gap-3">
          <button type="submit" aria-disabled={busy} className={brandButton}>
            {busy ? "One moment …" : review || (isLast && !form.review) ? door.look.buttonWord : "Go on"}
          </button>
          {(!isFirst || review) && (
            <button
              type="button"
              onClick={turnBack}
              className="min-h-11 rounded-soft border border-edge bg-card px-4 py-2.5"
            >
              Back
            </button>
          )}
        </div>
      </form>
      {!door.writesDown && (
        <FinishLater
          token={token}
          filling={filling}
          keepNow={way.later.keepNow}
          followsUp={form.followsUp}
          mailsLink={form.mailsLink}
        />
      )}
    </QuestionContext>
  );
}

/** What is left to put right, once some of it is; null before. */
function mended(total: number, left: number): string | null {
  if (left === total) return null;
  if (left === 0) return "All changed. You can continue.";
  return left === 1 ? "One answer still needs another look." : `${left} answers still need another look.`;
}

/** The key of the question a place belongs to: of "signs/0/width" it is "signs". */
const keyOf = (place: string) => place.split("/")[0]!;

/** What a place is called in the summary: the question, in a row with the row's number. */
function wordingOf(items: PublicItem[], place: string, wordings: Record<string, string>): string {
  const [key, row, cell] = place.split("/");
  const question = items.find((item) => item.key === key);
  if (question?.kind !== "question") return "";
  const wording = wordings[question.key] ?? question.wording;
  if (row === undefined || question.control.kind !== "rows") return wording;
  const asked = question.control.questions.find((one) => one.key === cell);
  const called = `${question.control.called} ${Number(row) + 1}`;
  return asked ? `${wordings[place] ?? asked.wording} (${called})` : `${wording} (${called})`;
}
