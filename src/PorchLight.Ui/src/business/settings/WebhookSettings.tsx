import { useState } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { AskFirst } from "../../kit/AskFirst";
import { useFocusBack } from "../../kit/useFocusBack";
import { CopyBox } from "../../kit/CopyBox";
import { TextBox } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useSendKey } from "../../api/useSendKey";
import { WebhookLog } from "./WebhookLog";

type Hook = Schemas["WebhookView"];
type Head = Schemas["WebhookHead"];

/** Where follow-throughs call other programs, and what was delivered. */
export function WebhookSettings() {
  const hooks = useQuery(ask(["webhooks"], () => api.GET("/api/webhooks")));
  const [secret, setSecret] = useState<Schemas["NewSecret"] | null>(null);
  if (!hooks.data) return hooks.error ? <Failure error={hooks.error} /> : <Skeleton rows={5} />;
  return (
    <div className="grid gap-6">
      <section aria-label="Your webhooks" className="grid gap-4 rounded-soft bg-card p-6 shadow-soft">
        <div>
          <h2 className="mb-1 text-lead">Your webhooks</h2>
          <p className="text-slate">
            A webhook tells another program of yours what happens here. A step of a follow-through calls it with what is
            on file about the client and the project. Each call is signed, so that the other side can tell that it comes
            from you.
          </p>
        </div>
        {hooks.data.length > 0 && (
          <ul className="grid gap-4">
            {hooks.data.map((hook) => (
              <HookCard
                key={hook.id}
                hook={hook}
                secret={secret?.id === hook.id ? secret.secret : null}
                onSecret={setSecret}
              />
            ))}
          </ul>
        )}
        <NewHook onMade={setSecret} />
      </section>
      <WebhookLog />
    </div>
  );
}

function NewHook({ onMade }: { onMade: (secret: Schemas["NewSecret"]) => void }) {
  const sendKey = useSendKey();
  const [head, setHead] = useState<Head | null>(null);
  const button = useFocusBack(head !== null);
  const make = useMutation({
    mutationFn: (body: Head) => orProblem(api.POST("/api/webhooks", { body, headers: sendKey.for(body) })),
    onSuccess: (made) => {
      sendKey.done();
      setHead(null);
      onMade(made);
    },
  });
  if (!head)
    return (
      <p>
        <Button ref={button} onClick={() => setHead({ name: "", address: "" })}>
          Add a webhook
        </Button>
      </p>
    );
  return (
    <HeadForm
      head={head}
      error={make.error}
      isBusy={make.isPending}
      words="Add it"
      onChange={setHead}
      onSave={() => make.mutate(head)}
      onCancel={() => setHead(null)}
    />
  );
}

interface HeadFormProps {
  head: Head;
  error: Error | null;
  isBusy: boolean;
  words: string;
  onChange: (head: Head) => void;
  onSave: () => void;
  onCancel: () => void;
}

function HeadForm({ head, error, isBusy, words, onChange, onSave, onCancel }: HeadFormProps) {
  const findings = findingsOf(error);
  return (
    <form
      noValidate
      className="grid gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        onSave();
      }}
    >
      <TextBox
        label="What it is called"
        value={head.name}
        error={findings.get("name")}
        onChange={(e) => onChange({ ...head, name: e.target.value })}
      />
      <TextBox
        label="Its address"
        help="It starts with https://; the other program gives it to you."
        type="url"
        value={head.address}
        error={findings.get("address")}
        onChange={(e) => onChange({ ...head, address: e.target.value })}
      />
      {findings.size === 0 && <Failure error={error} />}
      <p className="flex gap-2">
        <Button weight="main" type="submit" disabled={isBusy}>
          {words}
        </Button>
        <Button weight="quiet" onClick={onCancel}>
          Cancel
        </Button>
      </p>
    </form>
  );
}

interface CardProps {
  hook: Hook;
  /** Only just after it was made. */
  secret: string | null;
  onSecret: (secret: Schemas["NewSecret"]) => void;
}

function HookCard({ hook, secret, onSecret }: CardProps) {
  const notice = useNotice();
  const testKey = useSendKey();
  const secretKey = useSendKey();
  const [head, setHead] = useState<Head | null>(null);
  const button = useFocusBack(head !== null);
  const path = { id: hook.id };
  const save = useMutation({
    mutationFn: (now: Head) =>
      orProblem(api.PUT("/api/webhooks/{id}", { params: { path }, body: { was: hook.head, now } })),
    onSuccess: () => {
      setHead(null);
    },
  });
  const test = useMutation({
    mutationFn: () =>
      orProblem(api.POST("/api/webhooks/{id}/test", { params: { path }, headers: testKey.for(hook.head) })),
    onSuccess: () => {
      testKey.done();
      notice({ words: "A test is on its way. What comes of it stands in the log below." });
    },
  });
  const renew = useMutation({
    mutationFn: () =>
      orProblem(api.POST("/api/webhooks/{id}/secret", { params: { path }, headers: secretKey.for(hook.id) })),
    onSuccess: (made) => {
      secretKey.done();
      onSecret(made);
    },
  });
  const remove = useMutation({
    mutationFn: () => orProblem(api.DELETE("/api/webhooks/{id}", { params: { path } })),
  });
  const isBusy = [save, test, renew, remove].some((one) => one.isPending);
  return (
    <li className="grid gap-2 border-t border-line pt-4">
      {head ? (
        <HeadForm
          head={head}
          error={save.error}
          isBusy={isBusy}
          words="Save"
          onChange={setHead}
          onSave={() => save.mutate(head)}
          onCancel={() => setHead(null)}
        />
      ) : (
        <div>
          <strong>{hook.head.name}</strong>
          <span className="block text-slate wrap-anywhere">{hook.head.address}</span>
          {hook.isPractice && (
            <span className="block text-slate">
              Practice: addresses that end in .example lead nowhere, so calls stay in this program and count as taken.
            </span>
          )}
          {hook.failed > 0 && (
            <span className="block text-brick">
              {hook.failed === 1 ? "One call failed." : `${hook.failed} calls failed.`} The log below says why.
            </span>
          )}
        </div>
      )}
      {secret && (
        <div className="rounded-soft bg-glow p-4">
          <p className="mb-2">
            Give the other program this secret now. It is not shown again; if it is lost, make a new one.
          </p>
          <CopyBox label="Secret" help="Calls are signed with it." rows={1} text={secret} />
        </div>
      )}
      {!head && (
        <p className="flex flex-wrap gap-2">
          <Button disabled={isBusy} onClick={() => test.mutate()}>
            Send a test
          </Button>
          <Button ref={button} weight="quiet" onClick={() => setHead(hook.head)}>
            Change
          </Button>
          <Button weight="quiet" disabled={isBusy} onClick={() => renew.mutate()}>
            Make a new secret
          </Button>
          <AskFirst
            words="Remove"
            question="Remove it, with its log? Steps that call it will fail."
            act="Remove it"
            busy={isBusy}
            onAct={() => remove.mutate()}
          />
        </p>
      )}
      <Failure error={test.error ?? renew.error ?? remove.error} />
    </li>
  );
}
