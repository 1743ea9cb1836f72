import { createContext, useContext } from "react";
import type { Session } from "../../api/client";

interface OpenSession extends Session {
  /** Asks again who is here and what the business is called. */
  refresh: () => Promise<void>;
}

export const SessionContext = createContext<OpenSession | null>(null);

/** Who is signed in, on every screen behind the door. */
export function useSession(): OpenSession {
  const session = useContext(SessionContext);
  if (!session) throw new Error("Only within the program.");
  return session;
}
