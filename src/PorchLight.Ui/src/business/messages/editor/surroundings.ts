import { createContext, useContext } from "react";
import type { KnownChoice } from "../words";

/** What the document does not say itself, for what is shown in it. */
export interface Surroundings {
  choices: KnownChoice[];
  /** Whether all that can be set in is known whenever the words are used, so that nothing has to stand for it. */
  isAlwaysKnown: boolean;
  /** What stands below the message. */
  signature?: string;
  /** What is to be put right, by the key of its gap. */
  missing?: ReadonlyMap<string, string>;
}

const context = createContext<Surroundings>({ choices: [], isAlwaysKnown: true });

export const SurroundingsOf = context.Provider;

export const useSurroundings = () => useContext(context);
