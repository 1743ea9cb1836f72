import { createContext, useContext } from "react";
import type { FillingStep } from "./client";

/** What every question needs to know of the filling-in it belongs to. */
export interface Desk {
  token: string;
  version: number;
  sendKey: string;
  step: FillingStep;
  shown: ReadonlySet<string>;
  required: ReadonlySet<string>;
  /** What has to be put right, by place. */
  errors: ReadonlyMap<string, string>;
}

export const DeskContext = createContext<Desk | null>(null);

export function useDesk(): Desk {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error("A question stands outside of any form.");
  return desk;
}
