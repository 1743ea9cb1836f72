import { useCallback, useEffect, useRef, useState } from "react";
import { sentenceOf, type Finding } from "../api/problem";
import { evaluate, keepForLater } from "./client";
import type { Answer, Answers, EvaluatedPage, PublicForm, ReviewPage } from "./views";
import { newKey } from "../kit/newKey";
import { keep, load, resume, type LocalDraft } from "./localDraft";
import { addressWith, tellWorkbench } from "./embedding";

const debounceMs = 250;
const keepMs = 1500;

/** What has to be put right: a sentence, and each at its place. */
export interface Refusal {
  sentence: string;
  findings: Finding[];
  /** How many there were when it was said. */
  total: number;
  /** Which refusal it is, so that the same one twice is noticed twice. */
  count: number;
}

/** A filling-in as it grows: kept in this browser, and led by the server, which says what is asked. */
export function useFormSession(token: string, form: PublicForm) {
  const firstPage = form.start.pages[0] ?? "";
  const [filling, setFilling] = useState<LocalDraft>(() => begin(token, form, firstPage));
  const [step, setStep] = useState<EvaluatedPage>(form.start);
  const [review, setReview] = useState<ReviewPage[] | null>(null);
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const [turns, setTurns] = useState(0);
  const asksAtOnce = useRef(true);

  useEffect(() => keep(token, filling), [token, filling]);
  useEffect(() => tellWorkbench(filling.answers), [filling.answers]);

  // What is asked may depend on what was just answered; the last answer wins.
  const { version, page, answers, sendKey } = filling;
  useEffect(() => {
    const abort = new AbortController();
    const timer = setTimeout(
      () => {
        evaluate(token, { version, page, answers, sendKey, leaving: false }, abort.signal).then(
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
  }, [token, version, page, answers, sendKey]);

  const later = useLater(token, filling, setFilling);

  // The browser's own Back turns the page back.
  useEffect(() => {
    const back = (event: PopStateEvent) => {
      const page = (event.state as { page?: string } | null)?.page ?? firstPage;
      setRefusal(null);
      setReview(null);
      setFilling((before) => ({ ...before, page }));
      setTurns((before) => before + 1);
    };
    addEventListener("popstate", back);
    return () => removeEventListener("popstate", back);
  }, [firstPage]);

  const open = (key: string) => {
    setReview(null);
    setFilling((before) => ({ ...before, page: key }));
    setRefusal(null);
    setTurns((before) => before + 1);
  };

  return {
    filling,
    step,
    review,
    refusal,
    turns,
    later,
    setStep,
    firstPage,
    answer: (key: string, given: Answer | undefined) => {
      setFilling((before) => {
        const answers: Answers = { ...before.answers };
        if (given) answers[key] = given;
        else delete answers[key];
        return { ...before, answers };
      });
      // What was asked about the answer before is not asked about this one; gone at once, so that nothing moves later.
      setStep((before) => ({
        ...before,
        notices: Object.fromEntries(
          Object.entries(before.notices).filter(([place]) => place !== key && !place.startsWith(`${key}/`)),
        ),
      }));
      setRefusal(
        (before) =>
          before && {
            ...before,
            findings: before.findings.filter(({ place }) => place !== key && !place.startsWith(`${key}/`)),
          },
      );
    },
    refuse: (sentence: string, findings: Finding[]) =>
      setRefusal((before) => ({ sentence, findings, total: findings.length, count: (before?.count ?? 0) + 1 })),
    turnTo: (key: string) => {
      history.pushState({ page: key }, "");
      open(key);
    },
    turnBackTo: (key: string) => {
      history.replaceState({ page: key }, "");
      open(key);
    },
    showReview: (pages: ReviewPage[]) => {
      history.pushState({ page: filling.page, review: true }, "");
      setRefusal(null);
      setReview(pages);
      setTurns((before) => before + 1);
    },
    done: () => keep(token, null),
  };
}

function begin(token: string, form: PublicForm, firstPage: string): LocalDraft {
  const here = load(token);
  // What is kept for later wins over this browser's own copy, unless that one goes on from it.
  if (form.kept && !(here?.sendKey === form.kept.sendKey && (here.kept?.revision ?? 0) >= form.kept.revision))
    return resume(form.kept, location.href);
  if (here && here.version === form.version) return here;
  return {
    version: form.version,
    page: firstPage,
    answers: { ...form.prefilled, ...here?.answers },
    sendKey: newKey(),
  };
}

/** Keeps the filling-in to be finished later, once that was asked for, and from then on whatever is added. */
function useLater(
  token: string,
  filling: LocalDraft,
  setFilling: (change: (before: LocalDraft) => LocalDraft) => void,
) {
  const [lost, setLost] = useState<string | null>(null);
  const stored = useRef(filling);
  const { version, page, answers, sendKey, kept } = filling;

  const keepNow = useCallback(async () => {
    const got = await keepForLater(token, { version, page, sendKey, answers, revision: kept?.revision ?? 0 });
    stored.current = { ...stored.current, page, answers };
    setFilling((before) => ({ ...before, kept: got }));
    // From here on a reload, a bookmark or the address itself brings it back.
    history.replaceState(history.state, "", addressWith("later", got.token));
    return got;
  }, [token, version, page, sendKey, answers, kept?.revision, setFilling]);

  useEffect(() => {
    if (!kept || lost || (stored.current.page === page && stored.current.answers === answers)) return;
    const timer = setTimeout(() => keepNow().catch((error: unknown) => setLost(sentenceOf(error))), keepMs);
    return () => clearTimeout(timer);
  }, [kept, lost, page, answers, keepNow]);

  return { kept, lost, keepNow };
}
