import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useSendKey } from "../../api/useSendKey";

type Call = Schemas["CallView"];

const states: Record<Schemas["WebhookState"], string> = {
  waiting: "on its way",
  taken: "taken",
  failed: "given up",
};

/** What webhooks were called with, and what came of it. */
export function WebhookLog() {
  const calls = useQuery(ask(["webhook-calls"], () => api.GET("/api/webhooks/calls")));
  return (
    <section aria-label="What was delivered" className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="mb-1 text-[1.2rem]">What was delivered</h2>
      <p className="mb-3 text-slate">
        The last hundred calls. One that fails is tried eight times, over two hours; then it waits for you.
      </p>
      <Failure error={calls.error} />
      {calls.isPending && <Skeleton rows={3} />}
      {calls.data?.length === 0 && <p>Nothing has been called yet.</p>}
      <ul className="grid gap-3">
        {calls.data?.map((call) => (
          <CallRow key={call.id} call={call} />
        ))}
      </ul>
    </section>
  );
}

function CallRow({ call }: { call: Call }) {
  const notice = useNotice();
  const sendKey = useSendKey();
  const again = useMutation({
    mutationFn: () =>
      orProblem(
        api.POST("/api/webhooks/calls/{id}/again", {
          params: { path: { id: call.id } },
          headers: sendKey.for(call.tries.length),
        }),
      ),
    onSuccess: () => {
      sendKey.done();
      notice({ words: "It is sent once more." });
    },
  });
  return (
    <li className="border-t border-line pt-3">
      <details>
        <summary className="cursor-pointer">
          <strong>{call.webhook}</strong>, {call.client ? `about ${call.client}` : "a test"}, {call.written}:{" "}
          <span className={call.state === "failed" ? "font-semibold text-brick" : ""}>{states[call.state]}</span>
        </summary>
        <ul className="mt-2 list-disc pl-5">
          {call.tries.map((one, index) => (
            <li key={index}>
              {one.at}: {one.sentence}
            </li>
          ))}
          {call.tries.length === 0 && <li>It has not been tried yet.</li>}
          {call.next && <li>Tried again {call.next}.</li>}
        </ul>
        <pre className="mt-2 rounded-soft bg-paper p-3 text-[0.85rem] whitespace-pre-wrap wrap-anywhere">
          {call.payload}
        </pre>
        {call.state !== "waiting" && (
          <p className="mt-2">
            <Button disabled={again.isPending} onClick={() => again.mutate()}>
              Send it again
            </Button>
          </p>
        )}
        <Failure error={again.error} />
      </details>
    </li>
  );
}
