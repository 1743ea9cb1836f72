import { useState, type FormEvent } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { boxLook, GrowingText } from "../../kit/fields";
import { Panel, PanelWaiting, Section } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useTitle } from "../shell/useTitle";
import { useSendKey } from "../../api/useSendKey";

/** One message as the person who gets it would see it, and their side of the play. */
export function MailPanel() {
  const { id = "" } = useParams();
  const query = useQuery(
    ask(["practice-mail", id], () => api.GET("/api/practice/mail/{id}", { params: { path: { id } } })),
  );
  useTitle(query.data?.subject);
  const mail = query.data;
  if (!mail) return <PanelWaiting title="Message" home="/practice-mail" error={query.error} />;
  return (
    <Panel title={mail.subject} home="/practice-mail" under={`From ${mail.from} to ${mail.to}, ${mail.at}.`}>
      <iframe
        key={mail.id}
        title={`The message “${mail.subject}”`}
        src={`/api/practice/mail/${mail.id}/page`}
        sandbox=""
        className="h-96 w-full rounded-soft border border-edge bg-card"
      />
      {mail.clientId && (
        <p className="mt-3">
          <Link to={`/clients/${mail.clientId}`} className={buttonLook("plain")}>
            Open {mail.name}
          </Link>
        </p>
      )}
      {!mail.incoming && <TheirSide key={`theirs ${mail.id}`} mail={mail} />}
    </Panel>
  );
}

const awayNote = "I am away this week and read my mail again on Monday.";

const arrived: Record<Schemas["PracticeAnswer"], string> = {
  reply: "Their answer has arrived.",
  away: "Their absence note has arrived. It counts as no reply.",
  cameBack: "It came back; it waits for you on Today.",
};

function TheirSide({ mail }: { mail: Schemas["MailView"] }) {
  const [text, setText] = useState("");
  const sendKey = useSendKey();
  const path = { id: mail.id };
  const answer = useMutation({
    mutationFn: (kind: Schemas["PracticeAnswer"]) => {
      const body = { text: kind === "away" && !text.trim() ? awayNote : text, kind };
      return orProblem(
        api.POST("/api/practice/mail/{id}/answer", { params: { path }, body, headers: sendKey.for(body) }),
      );
    },
    onSuccess: () => {
      sendKey.done();
      setText("");
    },
  });
  const booked = useMutation({
    mutationFn: () =>
      orProblem(api.POST("/api/practice/mail/{id}/booked", { params: { path }, headers: sendKey.for("booked") })),
    onSuccess: () => {
      sendKey.done();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!answer.isPending) answer.mutate("reply");
  };
  return (
    <Section title="Play their side">
      <form onSubmit={submit} className="grid gap-2">
        <label className="block">
          <span className="mb-1 block">What they answer</span>
          <GrowingText className={`${boxLook} min-h-20`} value={text} onChange={(e) => setText(e.target.value)} />
        </label>
        <Failure error={answer.error ?? booked.error} />
        <div className="flex flex-wrap items-center gap-2">
          <Button weight="main" type="submit" disabled={answer.isPending}>
            They answered
          </Button>
          <Button disabled={booked.isPending} onClick={() => booked.mutate()}>
            They booked
          </Button>
          <Button disabled={answer.isPending} onClick={() => answer.mutate("away")}>
            Their absence note answered
          </Button>
          <Button disabled={answer.isPending} onClick={() => answer.mutate("cameBack")}>
            It came back
          </Button>
          <span role="status" className="text-moss">
            {answer.isSuccess ? arrived[answer.variables] : booked.isSuccess ? "Their booking has arrived." : ""}
          </span>
        </div>
      </form>
    </Section>
  );
}
