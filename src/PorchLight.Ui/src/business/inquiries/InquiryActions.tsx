import { Menu, MenuItem } from "../../kit/Menu";
import { useEffect, useRef, useState, type FormEvent } from "react";
import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { boxLook, GrowingText } from "../../kit/fields";
import { KeyCap } from "../../kit/KeyCap";
import { useLetters } from "../../kit/letters";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useSendKey } from "../../api/useSendKey";
import { MoveStage } from "./MoveStage";
import { isNo } from "./QuickReplies";
import { useProjectParts } from "../clientParts/useProjectParts";
import { asideReasons, useSetAside } from "./useSetAside";

type View = Schemas["InquiryView"];

interface Props {
  view: View;
  replies: Schemas["QuickReplyView"][];
  onReply: () => void;
  onQuick: (kind: Schemas["QuickReplyView"]["kind"]) => void;
}

/** What can be done about an inquiry: answer it here or elsewhere, note what they said, end what is planned, close it. */
export function InquiryActions({ view, replies, onReply, onQuick }: Props) {
  const navigate = useNavigate();
  const notice = useNotice();
  const sendKey = useSendKey();
  const [noting, setNoting] = useState(false);
  const parts = useProjectParts();
  useLetters([
    ...(view.email ? [{ letter: "R", words: "Reply in your own words", run: onReply }] : []),
    ...replies.map((reply) => ({ letter: reply.letter, words: reply.label, run: () => onQuick(reply.kind) })),
  ]);
  const at = { params: { path: { id: view.id } } };
  const act = useMutation({
    mutationFn: (what: () => Promise<unknown>) => what(),
    onSuccess: () => {
      sendKey.done();
    },
  });
  const aside = useSetAside();
  const answeredElsewhere = () =>
    orProblem(
      api.POST("/api/inquiries/{id}/answered-elsewhere", { ...at, headers: sendKey.for("answered elsewhere") }),
    );
  const close = async () => {
    await orProblem(api.POST("/api/inquiries/{id}/close", at));
    notice({
      words: `The inquiry of ${view.name} is closed.`,
      undo: () => orProblem(api.POST("/api/inquiries/{id}/open-again", at)),
    });
  };
  const quick = (reply: Schemas["QuickReplyView"]): Choice => [reply.label, () => onQuick(reply.kind), reply.letter];
  const noes = replies.filter(isNo).map(quick);
  const more: Choice[] = [
    ...replies.filter((reply) => !isNo(reply)).map(quick),
    ...(view.promiseOpen || view.wroteBack
      ? [["Answered elsewhere", () => act.mutate(answeredElsewhere)] as Choice]
      : []),
    ...(view.waitsFor
      ? [
          [
            `Give them a place in ${view.waitsFor}`,
            () => act.mutate(() => orProblem(api.POST("/api/inquiries/{id}/place", at))),
          ] as Choice,
        ]
      : []),
    ["Open the client", () => void navigate(`/clients/${view.clientId}`)],
    [`Note that ${view.name} got in touch`, () => setNoting(true)],
    ...(view.running
      ? [
          [
            `Stop “${view.running}”`,
            () => act.mutate(() => orProblem(api.POST("/api/inquiries/{id}/stop", at))),
          ] as Choice,
        ]
      : []),
    view.closed
      ? ["Reopen", () => act.mutate(() => orProblem(api.POST("/api/inquiries/{id}/open-again", at)))]
      : ["Close the inquiry", () => act.mutate(close)],
    ...(view.aside
      ? []
      : asideReasons.map(([reason, words]): Choice => [words, () => aside.mutate({ ids: [view.id], reason })])),
  ];
  return (
    <>
      <div className="mt-3 flex flex-wrap gap-2">
        {view.email && (
          <Button weight="main" onClick={onReply}>
            <KeyCap>R</KeyCap> Reply
          </Button>
        )}
        {noes.length > 0 && <Choices label="Decline" choices={noes} />}
        {parts && (
          <MoveStage ids={[view.id]} label="Stage" letter="S" stages={parts.stages} lostReasons={parts.lostReasons} />
        )}
        <Choices label="More" choices={more} />
      </div>
      <Failure error={act.error ?? aside.error} />
      {noting && <GotInTouch view={view} onDone={() => setNoting(false)} />}
    </>
  );
}

/** What a menu offers: its words, what it does, and the key that does the same. */
type Choice = [words: string, onSelect: () => void, letter?: string];

function Choices({ label, choices }: { label: string; choices: Choice[] }) {
  return (
    <Menu
      label={label}
      align="end"
      className="min-w-44"
      // What was chosen may have taken the focus on.
      onCloseAutoFocus={(event) => document.activeElement !== document.body && event.preventDefault()}
    >
      {choices.map(([words, onSelect, letter]) => (
        <MenuItem key={words} keys={letter && <KeyCap>{letter}</KeyCap>} onSelect={onSelect}>
          {words}
        </MenuItem>
      ))}
    </Menu>
  );
}

/** They phoned, or wrote elsewhere: with or without what they said. */
function GotInTouch({ view, onDone }: { view: View; onDone: () => void }) {
  const sendKey = useSendKey();
  const [text, setText] = useState("");
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => form.current?.querySelector("textarea")?.focus(), []);
  const note = useMutation({
    mutationFn: () => {
      const body = { text };
      return orProblem(
        api.POST("/api/inquiries/{id}/got-in-touch", {
          params: { path: { id: view.id } },
          body,
          headers: sendKey.for(body),
        }),
      );
    },
    onSuccess: () => {
      onDone();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!note.isPending) note.mutate();
  };
  return (
    <form ref={form} onSubmit={submit} className="mt-4 grid gap-3 rounded-soft border border-edge p-4">
      <label className="block">
        <span className="mb-1 block font-semibold">What {view.name} said</span>
        <span className="mb-1 block text-slate">
          By phone, in person or in another mail. You can leave this empty. Reminders still waiting are stopped.
        </span>
        <GrowingText className={`${boxLook} min-h-20`} value={text} onChange={(e) => setText(e.target.value)} />
      </label>
      <Failure error={note.error} />
      <div className="flex gap-2">
        <Button weight="main" type="submit" disabled={note.isPending}>
          Note it
        </Button>
        <Button weight="quiet" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </form>
  );
}
