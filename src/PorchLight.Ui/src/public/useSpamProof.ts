import { useRef } from "react";

/** How long sending waits for the short check; after that the answer to it says what is missing. */
const patienceMs = 20_000;

/** The proof of the short check. Whoever sends before the check is through waits for it and is not refused. */
export function useSpamProof() {
  const check = useRef<{ proof: string | null; over: boolean }>({ proof: null, over: false });
  const settled = useRef(() => {});
  return {
    /** Notes how far the check is: over with a proof, over without one, or still at work. */
    note: (proof: string | null, over: boolean) => {
      check.current = { proof, over };
      if (over) settled.current();
    },
    current: async () => {
      if (!check.current.over)
        await new Promise<void>((resolve) => {
          settled.current = resolve;
          setTimeout(resolve, patienceMs);
        });
      return check.current.proof;
    },
    /** A proof is good for one try: forgets it, and says whether there was one. */
    spend: () => {
      if (check.current.proof === null) return false;
      check.current = { proof: null, over: false };
      return true;
    },
  };
}
