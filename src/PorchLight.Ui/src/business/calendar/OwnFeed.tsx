import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { orProblem } from "../../api/problem";
import { useSendKey } from "../../api/useSendKey";
import { AskFirst } from "../../kit/AskFirst";
import { Button } from "../../kit/Button";
import { CopyBox } from "../../kit/CopyBox";
import { CheckBox } from "../../kit/fields";
import { Failure } from "../../kit/states";

/** One's own meetings at a secret address, for calendars kept elsewhere. */
export function OwnFeed() {
  const feed = useQuery(ask(["calendar-feed"], () => api.GET("/api/calendar-feed")));
  const sendKey = useSendKey();
  const change = useMutation({
    mutationFn: (hasNames: boolean) => orProblem(api.PUT("/api/calendar-feed", { body: { hasNames } })),
  });
  const renew = useMutation({
    mutationFn: () => orProblem(api.POST("/api/calendar-feed/renew", { headers: sendKey.for("renew") })),
    onSuccess: sendKey.done,
  });
  const end = useMutation({ mutationFn: () => orProblem(api.DELETE("/api/calendar-feed")) });
  if (!feed.data) return <Failure error={feed.error} />;
  const { link, hasNames } = feed.data;
  return (
    <section className="mt-6 border-t border-line pt-4 first:mt-0 first:border-t-0">
      <h3 className="mb-2 text-section">Your meetings in another calendar</h3>
      {link ? (
        <>
          <CopyBox
            label="Secret address"
            help="Add it to the other calendar. Whoever has it can read your meetings."
            text={link}
            rows={1}
          />
          <CheckBox label="With names and places" checked={hasNames} onChange={(on) => change.mutate(on)} />
          <p className="mt-3 flex flex-wrap gap-2">
            <AskFirst
              words="Make a new address"
              question="The old one stops working."
              act="Make a new one"
              keep="Keep the old one"
              busy={renew.isPending}
              onAct={() => renew.mutate()}
            />
            <AskFirst
              words="End it"
              label="End the secret address"
              question="Other calendars can’t read it any more."
              act="End it"
              busy={end.isPending}
              onAct={() => end.mutate()}
            />
          </p>
        </>
      ) : (
        <p className="flex flex-wrap items-center justify-between gap-3 text-slate">
          Other calendars can read your meetings at a secret address.
          <Button disabled={change.isPending} onClick={() => change.mutate(true)}>
            Make the address
          </Button>
        </p>
      )}
      <Failure error={change.error ?? renew.error ?? end.error} />
    </section>
  );
}
