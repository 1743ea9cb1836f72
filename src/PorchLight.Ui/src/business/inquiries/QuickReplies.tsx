import { DayBox } from "../../kit/DayBox";
import { useRef, useState } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { controlLook } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { DraftEditor } from "../messages/DraftEditor";
import { useMailGoing } from "../messages/useMailGoing";
import { useWritingKeys } from "../messages/useWritingKeys";
import { useSendKey } from "../../api/useSendKey";
import { replyKeptAs } from "./ReplyForm";

type Draft = Schemas["MessageDraft"];
type Reply = Schemas["QuickReplyView"];

const noes: Reply["kind"][] = ["noForPrice", "noRoom", "noMatch"];

export const isNo = (reply: Reply) => noes.includes(reply.kind);

/** The replies that are one key away; none for who left no address. */
export function useQuickReplies(id: string, hasAddress: boolean) {
  return useQuery({
    ...ask(["quick-replies", id], () => api.GET("/api/inquiries/{id}/quick-replies", { params: { path: { id } } })),
    enabled: hasAddress,
  }).data;
}

/** The words before the last ones, with which a reply closes; behind them where nothing else is said. */
function withHelp(parts: Draft["parts"], text: string): Draft["parts"] {
  const closing = parts.length > 1 ? parts.slice(-1) : [];
  return [...parts.slice(0, parts.length - closing.length), { kind: "text", key: "help", text }, ...closing];
}

interface OneProps {
  id: string;
  name: string;
  to: string;
  reply: Reply;
  colleagues: Schemas["ColleagueNamed"][];
  onDone: () => void;
}

/** A reply before it goes: every word can be changed, and it says where the project comes to. */
export function QuickReply({ id, name, to, reply, colleagues, onDone }: OneProps) {
  const goes = useMailGoing();
  const sendKey = useSendKey();
  const [draft, setDraft] = useState(reply.draft);
  const [moves, setMoves] = useState(reply.stage !== null);
  const [until, setUntil] = useState(reply.until ?? "");
  const form = useRef<HTMLFormElement>(null);
  const send = useMutation({
    mutationFn: () => {
      const body = { draft, stage: moves ? reply.stage : null, until: moves && reply.until ? until || null : null };
      return orProblem(
        api.POST("/api/inquiries/{id}/quick-replies", {
          params: { path: { id } },
          body,
          headers: sendKey.for(body),
        }),
      );
    },
    onSuccess: (going) => {
      goes(going, name, draft, replyKeptAs(id));
      onDone();
    },
  });
  const addColleague = (sentence: string) =>
    setDraft((now) => ({
      ...now,
      parts: now.parts.some((part) => part.key === "help")
        ? now.parts.map((part) =>
            part.key === "help" && part.kind === "text" ? { ...part, text: `${part.text}\n\n${sentence}` } : part,
          )
        : withHelp(now.parts, `Perhaps a colleague is right for you:\n\n${sentence}`),
    }));
  const submit = () => {
    if (!send.isPending) send.mutate();
  };
  useWritingKeys(form, submit, onDone);
  return (
    <form
      ref={form}
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
      aria-label={reply.label}
      className="mt-4 grid gap-3"
    >
      {/* Whoever opens it goes on writing: no second key sends what the first one opened. */}
      <DraftEditor to={to} draft={draft} onChange={setDraft} missing={findingsOf(send.error)} takesFocus />
      {isNo(reply) && colleagues.length > 0 && (
        <label className="flex flex-wrap items-center gap-2">
          Name a colleague
          <select className={controlLook} value="" onChange={(e) => e.target.value && addColleague(e.target.value)}>
            <option value="">choose …</option>
            {colleagues.map((one) => (
              <option key={one.name} value={one.sentence}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
      )}
      {reply.stageName && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="size-[1.15rem] accent-dusk"
            checked={moves}
            onChange={(e) => setMoves(e.target.checked)}
          />
          The project moves to “{reply.stageName}”
        </label>
      )}
      {reply.until && moves && (
        <DayBox
          label="It comes back on"
          value={until || null}
          error={findingsOf(send.error).get("until")}
          onChange={(day) => setUntil(day ?? "")}
        />
      )}
      <Failure error={send.error} />
      <div className="flex gap-2">
        <Button weight="main" type="submit" disabled={send.isPending} title="Ctrl+Enter">
          Send it
        </Button>
        <Button weight="quiet" onClick={onDone} title="Esc">
          Not now
        </Button>
      </div>
    </form>
  );
}
