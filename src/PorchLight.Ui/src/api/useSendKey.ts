import { useRef } from "react";
import { newKey } from "../kit/newKey";

/**
 * The header under which something is made or sent once: trying the same again, after a lost answer or a second press,
 * carries the same key; other words, or an act after the last one was done, carry another.
 */
export function useSendKey() {
  const last = useRef<{ body: string; key: string } | null>(null);
  return {
    for: (body?: unknown): Record<string, string> => {
      const asked = JSON.stringify(body ?? null);
      if (last.current?.body !== asked) last.current = { body: asked, key: newKey() };
      return { "Send-Key": last.current.key };
    },
    done: () => {
      last.current = null;
    },
  };
}
