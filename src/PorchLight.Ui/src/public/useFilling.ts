import { useEffect, useRef, useState } from "react";
import type { Finding } from "../api/problem";
import { evaluate, type Answer, type Answers, type FillingStep, type PublicForm, type ReviewPage } from "./client";
import { keep, load, newKey, type Filling } from "./filling";

const debounceMs = 250;

/** What has to be put right: a sentence, and each at its place. */
export interface Refusal {
  sentence: string;
  findings: Finding[];
  /** Which refusal it is, so that the same one twice is noticed twice. */
  count: number;
}

/** A filling-in as it grows: kept in this browser, and led by the server, which says what is asked. */
export function useFilling(token: string, form: PublicForm) {
  const firstPage = form.start.pages[0] ?? "";
  const [filling, setFilling] = useState<Filling>(() => {
    const kept = load(token);
    return kept && kept.version === form.version
      ? kept
      : {
          version: form.version,
          page: firstPage,
          answers: { ...form.prefilled, ...kept?.answers },
          sendKey: newKey(),
        };
  });
  const [step, setStep] = useState<FillingStep>(form.start);
  const [review, setReview] = useState<ReviewPage[] | null>(null);
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const [turns, setTurns] = useState(0);
  const asksAtOnce = useRef(true);

  useEffect(() => keep(token, filling), [token, filling]);

  // What is asked may depend on what was just answered; the last answer wins.
  useEffect(() => {
    const abort = new AbortController();
    const timer = setTimeout(
      () => {
        evaluate(token, { ...filling, leaving: false }, abort.signal).then(
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
  }, [token, filling]);

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
    setStep,
    firstPage,
    answer: (key: string, given: Answer | undefined) => {
      setFilling((before) => {
        const answers: Answers = { ...before.answers };
        if (given) answers[key] = given;
        else delete answers[key];
        return { ...before, answers };
      });
      setRefusal(
        (before) =>
          before && {
            ...before,
            findings: before.findings.filter(({ place }) => place !== key && !place.startsWith(`${key}/`)),
          },
      );
    },
    refuse: (sentence: string, findings: Finding[]) =>
      setRefusal((before) => ({ sentence, findings, count: (before?.count ?? 0) + 1 })),
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
