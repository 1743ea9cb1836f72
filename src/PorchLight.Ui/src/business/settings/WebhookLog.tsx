import { useMutation } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { RowItem } from "../../kit/Rows";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useList } from "../lists/list";
import { ListBody, SaveList } from "../lists/ListBody";
import { useSendKey } from "../../api/useSendKey";

type Call = Schemas["CallView"];

const states: Record<Schemas["WebhookState"], string> = {
  waiting: "on its way",
  taken: "taken",
  failed: "given up",
};

/** What webhooks were called with, and what came of it. */
export function WebhookLog() {
  const list = useList("/api/webhooks/calls", "/settings/webhooks");
  return (
    <section aria-label="What was delivered" className="@container/list rounded-soft bg-card p-6 shadow-soft">
      <div className="mb-1 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-lead">What was delivered</h2>
        <SaveList list={list} />
      </div>
      <p className="mb-3 text-slate">A call that fails is tried eight times, over two hours; then it waits for you.</p>
      <ListBody
        list={list}
        one="call"
        many="calls"
        search="Find by webhook or client"
        all="All calls"
        empty="Nothing has been called yet."
      >
        {(call) => <CallRow call={call} />}
      </ListBody>
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
    <RowItem className="px-4 py-2">
      <details>
        <summary className="cursor-pointer">
          <strong>{call.webhook}</strong>, {call.client ? `about ${call.client}` : "a test"},{" "}
          <time title={call.exactly}>{call.written}</time>:{" "}
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
        <pre className="mt-2 rounded-soft bg-paper p-3 text-caption whitespace-pre-wrap wrap-anywhere">
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
    </RowItem>
  );
}
