import { DayBox, TimeBox } from "../../kit/DayBox";
import { Dialog, DialogClose } from "../../kit/Dialog";
import { useState, type FormEvent } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { useSearchParams } from "react-router";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { boxLook, CheckBox, GrowingText, Labelled, SelectBox, TextBox } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useSendKey } from "../../api/useSendKey";

type Choices = Schemas["WriteDownChoices"];

const ways = [
  ["write", "Write it down yourself"],
  ["link", "Send them a link"],
] as const;

const channels: [Schemas["InquiryChannel"], string][] = [
  ["phone", "By phone"],
  ["mail", "By mail or letter"],
  ["inPerson", "In person, at a fair for example"],
];

/** An inquiry that came by another way than a form: written down by the questions of one, or asked for with a link. */
export function WriteDown() {
  const [search, setSearch] = useSearchParams();
  const isOpen = search.has("add");
  const setOpen = (open: boolean) =>
    setSearch(
      (before) => {
        if (open) before.set("add", "");
        else before.delete("add");
        return before;
      },
      { replace: true },
    );
  const [way, setWay] = useState<(typeof ways)[number][0]>("write");
  const choices = useQuery({ ...ask(["write-down"], () => api.GET("/api/inquiries/write-down")), enabled: isOpen });
  return (
    <Dialog open={isOpen} onOpenChange={setOpen} trigger={<Button>Add an inquiry</Button>} title="Add an inquiry">
      <span role="group" aria-label="How you add it" className="mb-4 flex flex-wrap gap-1">
        {ways.map(([one, words]) => (
          <button
            key={one}
            type="button"
            aria-pressed={way === one}
            className={`rounded-soft px-3 py-1 ${way === one ? "bg-dusk font-semibold text-card" : "hover:underline"}`}
            onClick={() => setWay(one)}
          >
            {words}
          </button>
        ))}
      </span>
      {choices.isPending && <Skeleton rows={4} />}
      <Failure error={choices.error} />
      {choices.data &&
        (choices.data.forms.length === 0 ? (
          <p>Publish a form first; its questions are asked here.</p>
        ) : way === "write" ? (
          <ByHand choices={choices.data} />
        ) : (
          <ByLink choices={choices.data} onSent={() => setOpen(false)} />
        ))}
    </Dialog>
  );
}

function ByHand({ choices }: { choices: Choices }) {
  const [wanted, setWanted] = useState({
    form: choices.forms[0]!.id as string,
    channel: "phone" as Schemas["InquiryChannel"],
    on: choices.today as string,
    at: "",
    answered: true,
    starts: false,
  });
  const set = (part: Partial<typeof wanted>) => setWanted((before) => ({ ...before, ...part }));
  const open = useMutation({
    mutationFn: () =>
      orProblem(
        api.PUT("/api/inquiries/write-down", { body: { ...wanted, at: wanted.at ? `${wanted.at}:00` : null } }),
      ),
    onSuccess: ({ address }) => location.assign(address),
  });
  const findings = findingsOf(open.error);
  return (
    <form
      noValidate
      className="grid gap-3"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        if (!open.isPending) open.mutate();
      }}
    >
      <FormChoice
        choices={choices}
        value={wanted.form}
        error={findings.get("form")}
        onChange={(form) => set({ form })}
      />
      <SelectBox
        label="How it reached you"
        value={wanted.channel}
        error={findings.get("channel")}
        // Who phones has had a word with you; who wrote waits for one.
        onChange={(e) =>
          set({ channel: e.target.value as Schemas["InquiryChannel"], answered: e.target.value !== "mail" })
        }
      >
        {channels.map(([channel, words]) => (
          <option key={channel} value={channel}>
            {words}
          </option>
        ))}
      </SelectBox>
      <div className="grid items-end gap-3 sm:grid-cols-2">
        <DayBox
          label="The day"
          latest={choices.today}
          value={wanted.on || null}
          error={findings.get("on")}
          onChange={(on) => set({ on: on ?? "" })}
        />
        <TimeBox
          label="The time"
          help="Leave empty if you do not know."
          value={wanted.at || null}
          error={findings.get("at")}
          onChange={(at) => set({ at: at ?? "" })}
        />
      </div>
      <CheckBox
        label="Already answered"
        help="Otherwise your reply promise counts from that time."
        checked={wanted.answered}
        onChange={(answered) => set({ answered })}
      />
      <CheckBox
        label="Send what everyone gets after filling it in"
        help="The follow-through of the form begins, with its thank-you, if they left a mail address."
        checked={wanted.starts}
        onChange={(starts) => set({ starts })}
      />
      {findings.size === 0 && <Failure error={open.error} />}
      <span className="flex gap-2">
        <Button weight="main" type="submit" disabled={open.isPending || !wanted.on}>
          Continue to the questions
        </Button>
        <DialogClose className={buttonLook("quiet")}>Cancel</DialogClose>
      </span>
    </form>
  );
}

function ByLink({ choices, onSent }: { choices: Choices; onSent: () => void }) {
  const first = choices.forms[0]!;
  const [form, setForm] = useState(first);
  const [person, setPerson] = useState({ email: "", givenName: "", familyName: "" });
  const [subject, setSubject] = useState(first.subject);
  const [text, setText] = useState(first.text);
  const say = useNotice();
  const sendKey = useSendKey();
  const send = useMutation({
    mutationFn: () => {
      const body = { for: person, subject, text };
      return orProblem(
        api.POST("/api/forms/{id}/links/by-mail", {
          params: { path: { id: form.id } },
          body,
          headers: sendKey.for({ form: form.id, ...body }),
        }),
      );
    },
    onSuccess: ({ link, takeBackSeconds }) => {
      sendKey.done();
      say(
        takeBackSeconds
          ? {
              words: `The link goes to ${person.email} in ${takeBackSeconds} seconds.`,
              undo: () =>
                orProblem(
                  api.POST("/api/forms/{id}/links/{link}/take-back", { params: { path: { id: form.id, link } } }),
                ),
            }
          : { words: `The link was sent to ${person.email}.` },
      );
      onSent();
    },
  });
  const findings = findingsOf(send.error);
  const set = (part: Partial<typeof person>) => setPerson((before) => ({ ...before, ...part }));
  const choose = (id: string) => {
    const next = choices.forms.find((one) => one.id === id)!;
    // What was written by hand stays.
    if (subject === form.subject) setSubject(next.subject);
    if (text === form.text) setText(next.text);
    setForm(next);
  };
  return (
    <form
      noValidate
      className="grid gap-3"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        if (!send.isPending) send.mutate();
      }}
    >
      <FormChoice choices={choices} value={form.id} onChange={choose} />
      <TextBox
        label="Their e-mail"
        type="email"
        autoComplete="off"
        value={person.email}
        error={findings.get("email")}
        onChange={(e) => set({ email: e.target.value })}
      />
      <div className="grid gap-3 sm:grid-cols-2">
        <TextBox
          label="First name"
          autoComplete="off"
          value={person.givenName}
          error={findings.get("givenName")}
          onChange={(e) => set({ givenName: e.target.value })}
        />
        <TextBox
          label="Last name"
          autoComplete="off"
          value={person.familyName}
          onChange={(e) => set({ familyName: e.target.value })}
        />
      </div>
      <TextBox
        label="Subject"
        value={subject}
        error={findings.get("subject")}
        onChange={(e) => setSubject(e.target.value)}
      />
      <Labelled label="Message" error={findings.get("text")}>
        <GrowingText className={`${boxLook} min-h-40`} value={text} onChange={(e) => setText(e.target.value)} />
      </Labelled>
      {findings.size === 0 && <Failure error={send.error} />}
      <span className="flex gap-2">
        <Button weight="main" type="submit" disabled={send.isPending}>
          Send the link
        </Button>
        <DialogClose className={buttonLook("quiet")}>Cancel</DialogClose>
      </span>
    </form>
  );
}

interface FormChoiceProps {
  choices: Choices;
  value: string;
  error?: string;
  onChange: (form: string) => void;
}

function FormChoice({ choices, value, error, onChange }: FormChoiceProps) {
  return (
    <SelectBox label="The form" value={value} error={error} onChange={(e) => onChange(e.target.value)}>
      {choices.forms.map((one) => (
        <option key={one.id} value={one.id}>
          {one.title}
        </option>
      ))}
    </SelectBox>
  );
}
