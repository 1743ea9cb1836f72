import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link, useNavigate, useParams } from "react-router";
import { orProblem } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { Panel, PanelWaiting } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useTitle } from "../shell/useTitle";

/** A message that could not be delivered, or perhaps was: a person looks and decides. */
export function StuckMail() {
  const { id = "" } = useParams();
  const navigate = useNavigate();
  const notice = useNotice();
  const path = { id };
  const query = useQuery({ ...ask(["mail", id], () => api.GET("/api/mail/{id}", { params: { path } })), retry: false });
  const done = (words: string) => {
    void navigate("/");
    notice({ words });
  };
  const again = useMutation({
    mutationFn: () => orProblem(api.POST("/api/mail/{id}/again", { params: { path } })),
    onSuccess: () => done("Sending it again."),
  });
  const leave = useMutation({
    mutationFn: () => orProblem(api.POST("/api/mail/{id}/leave", { params: { path } })),
    onSuccess: () => done("Left as it is."),
  });
  const mail = query.data;
  useTitle(mail?.subject);
  if (!mail) return <PanelWaiting title="Message" home="/" error={query.error} />;
  const busy = again.isPending || leave.isPending;
  return (
    <Panel title={mail.subject} home="/" under={`To ${mail.name}, ${mail.to}, written ${mail.written}.`}>
      <div className="mb-4 rounded-soft bg-glow p-4">
        <h2 className="text-section">{mail.perhaps ? "Perhaps sent; please look" : "Not delivered"}</h2>
        <p>{mail.why}</p>
        <p className="mt-1">
          {mail.perhaps
            ? "Check your mail server’s sent mail for its message ID, or ask whether it arrived. It is not sent twice unless you say so."
            : "Check the address and your mail settings, then send it again; or write in another way and leave this one."}
        </p>
        {mail.perhaps && <p className="mt-1 wrap-anywhere text-slate">Message number: {mail.messageId}</p>}
      </div>
      <div className="rounded-soft border border-edge p-5 whitespace-pre-wrap">{mail.text}</div>
      <Failure error={again.error ?? leave.error} />
      <div className="mt-4 flex flex-wrap gap-2">
        <Button weight="main" disabled={busy} onClick={() => again.mutate()}>
          Send it again
        </Button>
        <Button disabled={busy} onClick={() => leave.mutate()}>
          {mail.perhaps ? "It arrived, leave it" : "Do not send it"}
        </Button>
        {mail.clientId && (
          <Link to={`/clients/${mail.clientId}`} className={buttonLook("plain")}>
            Open {mail.name}
          </Link>
        )}
      </div>
    </Panel>
  );
}
