import { useMutation } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../api/problem";
import { useNotice } from "../../kit/Notice";
import { api } from "../../api/client";

/** Why inquiries are set aside, in the words of the buttons. */
export const asideReasons: [NonNullable<Schemas["AsideReason"]>, string][] = [
  ["spam", "It is spam"],
  ["test", "It is just a test"],
];

/**
 * Sets inquiries aside, so that they never count, or puts them back. It can be taken back.
 * @param onDone Told when it is done.
 */
export function useSetAside(onDone?: () => void) {
  const say = useNotice();
  const put = (inquiries: string[], reason: Schemas["AsideReason"] | null) =>
    orProblem(api.PUT("/api/inquiries/aside", { body: { inquiries, reason } }));
  return useMutation({
    mutationFn: ({ ids, reason }: { ids: string[]; reason: Schemas["AsideReason"] | null }) => put(ids, reason),
    onSuccess: (_, { ids, reason }) => {
      const what = ids.length === 1 ? "The inquiry" : `${ids.length} inquiries`;
      say(
        reason
          ? {
              words: `${what} ${ids.length === 1 ? "is" : "are"} set aside. What was to be sent is stopped.`,
              undo: () => put(ids, null),
            }
          : { words: `${what} ${ids.length === 1 ? "counts" : "count"} again. Nothing is sent by itself any more.` },
      );
      onDone?.();
    },
  });
}
