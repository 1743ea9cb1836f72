import { createContext, useContext } from "react";
import type { EvaluatedPage } from "./views";

/** What every question needs to know of the filling-in it belongs to. */
export interface QuestionSurroundings {
  token: string;
  version: number;
  sendKey: string;
  step: EvaluatedPage;
  shown: ReadonlySet<string>;
  required: ReadonlySet<string>;
  /** What has to be put right, by place. */
  errors: ReadonlyMap<string, string>;
}

export const QuestionContext = createContext<QuestionSurroundings | null>(null);

export function useQuestionContext(): QuestionSurroundings {
  const desk = useContext(QuestionContext);
  if (!desk) throw new Error("A question stands outside of any form.");
  return desk;
}
