import { useState, type FormEvent } from "react";
import { Dialog } from "radix-ui";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { useNavigate } from "react-router";
import { findingsOf, orProblem } from "../../api/problem";
import { Button } from "../../kit/Button";
import { TextBox } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useSendKey } from "../../api/useSendKey";

/** Begins another follow-through: from one that is ready, or with nothing. */
export function NewFollowThrough() {
  const [open, setOpen] = useState(false);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button weight="main">A new follow-through</Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/60" />
        <Dialog.Content className="fixed top-[8vh] left-1/2 z-50 max-h-[84vh] w-2xl max-w-[94vw] -translate-x-1/2 overflow-y-auto rounded-soft bg-card p-7 shadow-panel">
          <Dialog.Title className="mb-1 text-xl">A new follow-through</Dialog.Title>
          <Dialog.Description className="mb-4 text-slate">
            Choose a starting point. Nothing starts until you have checked it and put it into force.
          </Dialog.Description>
          <Choose />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Choose() {
  const navigate = useNavigate();
  const sendKey = useSendKey();
  const [start, setStart] = useState<string | null>(null);
  const [name, setName] = useState("");
  const ready = useQuery({
    ...ask(["ready-follow-throughs"], () => api.GET("/api/follow-throughs/ready")),
    staleTime: Infinity,
  });
  const make = useMutation({
    mutationFn: () => {
      const body = { ready: start || null, name };
      return orProblem(api.POST("/api/follow-throughs", { body, headers: sendKey.for(body) }));
    },
    onSuccess: ({ id }) => {
      sendKey.done();
      void navigate(`/follow-through/${id}`);
    },
  });
  const choose = (key: string, called: string) => {
    setStart(key);
    setName(called);
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (start !== null && !make.isPending && !make.isSuccess) make.mutate();
  };
  const offered = [...(ready.data ?? []), { key: "", name: "Nothing yet", about: "You add every step yourself." }];
  return (
    <form onSubmit={submit} noValidate>
      <Failure error={ready.error} />
      <ul className="grid gap-2 sm:grid-cols-2">
        {offered.map((one) => (
          <li key={one.key}>
            <button
              type="button"
              aria-pressed={start === one.key}
              className={`flex h-full w-full flex-col items-start rounded-soft border-2 bg-card p-3 text-left shadow-soft ${start === one.key ? "border-dusk" : "border-transparent hover:border-edge"}`}
              onClick={() => choose(one.key, one.key ? one.name : "")}
            >
              <strong className="block font-head">{one.name}</strong>
              <span className="text-slate">{one.about}</span>
            </button>
          </li>
        ))}
      </ul>
      {start !== null && (
        <div className="mt-4 grid gap-4">
          <TextBox
            label="What you call it"
            value={name}
            error={findingsOf(make.error).get("name")}
            onChange={(e) => setName(e.target.value)}
          />
          {findingsOf(make.error).size === 0 && <Failure error={make.error} />}
          <div className="flex gap-2">
            <Button weight="main" type="submit" disabled={make.isPending}>
              Begin
            </Button>
            <Dialog.Close asChild>
              <Button>Not now</Button>
            </Dialog.Close>
          </div>
        </div>
      )}
    </form>
  );
}
