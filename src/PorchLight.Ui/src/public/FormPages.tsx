import { useEffect, useRef, useState, type FormEvent } from "react";
import { Problem, sentenceOf, type Finding } from "../api/problem";
import { LampMark } from "../kit/marks";
import { evaluate, send, type Answer, type Answers, type FillingStep, type PublicForm, type SentView } from "./client";
import { keep, load, newKey } from "./filling";
import { toTop, within } from "./frame";
import { QuestionField } from "./QuestionField";

const debounceMs = 250;

interface Props {
  token: string;
  form: PublicForm;
  onSent: (sent: SentView) => void;
}

/** The pages of questions. What is asked is the server's to say; here it is drawn and kept. */
export function FormPages({ token, form, onSent }: Props) {
  const [filling, setFilling] = useState(() => {
    const kept = load(token);
    return kept && kept.version === form.version
      ? kept
      : { version: form.version, page: form.start.pages[0] ?? "", answers: kept?.answers ?? {}, sendKey: newKey() };
  });
  const [step, setStep] = useState<FillingStep>(form.start);
  const [findings, setFindings] = useState<Finding[]>([]);
  const [failure, setFailure] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const busyNow = useRef(false);
  const asksAtOnce = useRef(true);
  const [refusals, setRefusals] = useState(0);
  const [turns, setTurns] = useState(0);
  const summary = useRef<HTMLDivElement>(null);
  const heading = useRef<HTMLHeadingElement>(null);

  useEffect(() => keep(token, filling), [token, filling]);

  // What is asked may depend on what was just answered; the last answer wins.
  useEffect(() => {
    const abort = new AbortController();
    const timer = setTimeout(
      () => {
        evaluate(
          token,
          { version: filling.version, page: filling.page, leaving: false, answers: filling.answers },
          abort.signal,
        ).then(
          (next) => !abort.signal.aborted && setStep(next),
          () => {}, // The way on asks again, and says what is wrong.
        );
      },
      asksAtOnce.current ? 0 : debounceMs,
    );
    asksAtOnce.current = false;
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  }, [token, filling.version, filling.page, filling.answers]);

  // The browser's own Back turns the page back.
  useEffect(() => {
    const back = (event: PopStateEvent) => {
      const page = (event.state as { page?: string } | null)?.page ?? form.start.pages[0] ?? "";
      setFindings([]);
      setFailure(null);
      setFilling((before) => ({ ...before, page }));
    };
    addEventListener("popstate", back);
    return () => removeEventListener("popstate", back);
  }, [form]);

  // What went wrong takes the focus, and so does the title of a page that was turned to.
  useEffect(() => {
    if (refusals > 0) summary.current?.focus();
  }, [refusals]);
  useEffect(() => {
    if (turns === 0) return;
    heading.current?.focus();
    toTop();
  }, [turns]);

  const page = form.pages.find((one) => one.key === filling.page) ?? form.pages[0]!;
  const questions = page.questions.filter((question) => step.asked.includes(question.key));
  const errors = new Map(findings.map((finding) => [finding.place, finding.sentence]));
  const isLast = step.pages.includes(page.key) && step.next === null;

  const refuse = (sentence: string, found: Finding[]) => {
    setFindings(found);
    setFailure(sentence);
    setRefusals((before) => before + 1);
  };

  const turnTo = (key: string) => {
    history.pushState({ page: key }, "");
    setFilling((before) => ({ ...before, page: key }));
    setFindings([]);
    setFailure(null);
    setTurns((before) => before + 1);
  };

  const answer = (key: string, given: Answer | undefined) => {
    setFilling((before) => {
      const answers: Answers = { ...before.answers };
      if (given) answers[key] = given;
      else delete answers[key];
      return { ...before, answers };
    });
    setFindings((before) => before.filter((finding) => finding.place !== key));
  };

  const goOn = async () => {
    const { version, answers, sendKey } = filling;
    const left = await evaluate(token, { version, page: page.key, leaving: true, answers });
    if (left.summary) return refuse(left.summary, left.findings);
    if (left.next) {
      setStep(await evaluate(token, { version, page: left.next, leaving: false, answers }));
      return turnTo(left.next);
    }
    const asked = Object.fromEntries(
      Object.entries(answers).filter(([key]) =>
        form.pages.some((one) => one.questions.some((question) => question.key === key)),
      ),
    );
    const sent = await send(token, { version, sendKey, answers: asked, cameFrom: within });
    keep(token, null);
    onSent(sent);
  };

  const turnBack = () => {
    const before = step.pages[step.pages.indexOf(page.key) - 1] ?? form.start.pages[0] ?? "";
    history.replaceState({ page: before }, "");
    setFindings([]);
    setFailure(null);
    setFilling((now) => ({ ...now, page: before }));
    setTurns((now) => now + 1);
  };

  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (busyNow.current) return;
    busyNow.current = true;
    setBusy(true);
    goOn()
      .catch((error: unknown) => {
        const found = error instanceof Problem ? error.findings : [];
        const elsewhere = found.find((finding) => page.questions.every((question) => question.key !== finding.place));
        const home =
          elsewhere && form.pages.find((one) => one.questions.some((question) => question.key === elsewhere.place));
        if (home) turnTo(home.key);
        refuse(sentenceOf(error), found);
      })
      .finally(() => {
        busyNow.current = false;
        setBusy(false);
      });
  };

  return (
    <form onSubmit={submit} noValidate>
      <p className="mb-1 text-slate">{form.business}</p>
      {page.key === form.start.pages[0] && (
        <>
          <h1 className="mb-2 text-2xl">{form.title}</h1>
          <p className="mb-5 whitespace-pre-line">{form.intro}</p>
        </>
      )}
      <div
        className="mb-4 flex items-center gap-1.5"
        role="img"
        aria-label={`Page ${form.pages.indexOf(page) + 1} of ${form.pages.length}`}
      >
        {form.pages.map((one, index) => (
          <LampMark key={one.key} lit={index <= form.pages.indexOf(page)} />
        ))}
      </div>
      <h2 ref={heading} tabIndex={-1} className="mb-4 text-xl outline-none">
        {page.title}
      </h2>
      {failure && (
        <div ref={summary} tabIndex={-1} role="alert" className="mb-6 rounded-soft border-2 border-brick p-3">
          <p className="font-semibold text-brick">{failure}</p>
          <ul className="mt-1 grid gap-1">
            {findings
              .filter((finding) => questions.some((question) => question.key === finding.place))
              .map((finding) => (
                <li key={finding.place}>
                  <a
                    href={`#q-${finding.place}`}
                    className="text-ink underline"
                    onClick={(event) => focusOn(event, finding.place)}
                  >
                    {page.questions.find((question) => question.key === finding.place)?.wording}
                  </a>
                </li>
              ))}
          </ul>
        </div>
      )}
      {questions.map((question) => (
        <QuestionField
          key={question.key}
          question={question}
          answer={filling.answers[question.key]}
          error={errors.get(question.key)}
          onChange={(given) => answer(question.key, given)}
        />
      ))}
      <div className="flex flex-wrap items-center gap-3">
        <button
          type="submit"
          aria-disabled={busy}
          className="min-h-11 rounded-soft bg-[var(--brand)] px-5 py-2.5 font-semibold text-card"
        >
          {busy ? "One moment …" : isLast ? "Send" : "Go on"}
        </button>
        {page.key !== form.start.pages[0] && (
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
  );
}

function focusOn(event: { preventDefault: () => void }, key: string) {
  event.preventDefault();
  const place = document.getElementById(`q-${key}`);
  (place?.matches("fieldset") ? place.querySelector<HTMLElement>("input") : place)?.focus();
}
