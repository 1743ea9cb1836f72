import { Dialog, DialogClose } from "../../kit/Dialog";
import { useState, type FormEvent } from "react";
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
    <Dialog
      open={open}
      onOpenChange={setOpen}
      width="wide"
      trigger={<Button weight="main">A new follow-through</Button>}
      title="A new follow-through"
      about="Choose a starting point. Nothing starts until you have checked it and put it into force."
    >
      <Choose />
    </Dialog>
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
            <DialogClose asChild>
              <Button>Not now</Button>
            </DialogClose>
          </div>
        </div>
      )}
    </form>
  );
}
