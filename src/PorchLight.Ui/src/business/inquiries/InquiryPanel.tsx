import { useEffect, useRef } from "react";
import { CornerDownRight, Scale } from "lucide-react";
import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { useParams, useSearchParams } from "react-router";
import { type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { MarginMark } from "../../kit/marks";
import { Panel, PanelWaiting, Section, TheirWords, TimelineList } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { Conversation } from "../messages/Conversation";
import { Differences } from "../clientParts/Differences";
import { useTitle } from "../shell/useTitle";
import { Meetings } from "../meetings/Meetings";
import { Runs } from "../runs/Runs";
import { AboutClient } from "./AboutClient";
import { FitCard } from "./FitCard";
import { InquiryActions } from "./InquiryActions";
import { QuickReply, useQuickReplies } from "./QuickReplies";
import { ReplyForm } from "./ReplyForm";
import { useSetAside } from "./useSetAside";

/** Who, what, fit and why, what landed, the promise, and what happened. */
export function InquiryPanel() {
  const { id = "" } = useParams();
  const [search, setSearch] = useSearchParams();
  const query = useQuery(ask(["inquiry", id], () => api.GET("/api/inquiries/{id}", { params: { path: { id } } })));
  useTitle(query.data?.name);
  const view = query.data;
  const replies = useQuickReplies(id, Boolean(view?.email));
  const aside = useSetAside();
  const replying = search.has("reply");
  const quick = (search.get("quick") ?? null) as Schemas["QuickReplyKind"] | null;
  const setQuick = (kind: Schemas["QuickReplyKind"] | null) =>
    setSearch(kind ? { quick: kind } : {}, { replace: true });
  // Who has replied, or put it off, is back at the head of the panel.
  const isWriting = replying || quick !== null;
  const wasReplying = useRef(isWriting);
  useEffect(() => {
    if (wasReplying.current && !isWriting) document.querySelector<HTMLElement>("aside h1")?.focus();
    wasReplying.current = isWriting;
  }, [isWriting]);
  if (!view) return <PanelWaiting title="Inquiry" home="/inquiries" error={query.error} />;
  const chosen = replies?.replies.find((reply) => reply.kind === quick);
  const wrote = view.timeline.find((entry) => entry.words);
  return (
    <Panel
      title={view.name}
      home="/inquiries"
      under={`“${view.form}”, ${view.writtenDown ? `${view.received} ${view.writtenDown}` : `sent ${view.received}${view.cameFrom ? ` from ${siteOf(view.cameFrom)}` : " by its link"}`}.${view.knownBefore ? " Known to us already." : " New to us."}`}
    >
      {view.aside && (
        <p className="mt-2 mb-3 flex flex-wrap items-center gap-x-3 rounded-soft border border-edge bg-mist p-3">
          <strong>{view.aside === "spam" ? "Set aside as spam." : "Set aside as just a test."}</strong>
          It is not counted anywhere.
          <Button disabled={aside.isPending} onClick={() => aside.mutate({ ids: [view.id], reason: null })}>
            Put it back
          </Button>
        </p>
      )}
      <Failure error={aside.error} />
      {view.fit && (
        <FitCard key={`fit ${id}`} id={id} name={view.name} fit={view.fit} onReopen={() => setQuick("doorReopened")} />
      )}
      <p className="mt-4" title={view.promiseExactly ?? undefined}>
        {view.promise && <strong>{view.promise}</strong>}{" "}
        {view.promiseOpen && view.promise && <span className="text-slate">({view.promiseClock})</span>}
        {view.wroteBack && (
          <strong>
            {" "}
            {view.name} wrote back {view.wroteBack}.
          </strong>
        )}
        {view.callAsked && <strong> {view.name} would like a call.</strong>}
      </p>
      {view.wroteBack && wrote?.words && <TheirWords>{wrote.words}</TheirWords>}
      {!isWriting && (
        <InquiryActions
          view={view}
          replies={replies?.replies ?? []}
          onReply={() => setSearch("reply")}
          onQuick={setQuick}
        />
      )}
      {/* Whoever writes has what they said beside it. */}
      <div className={isWriting ? "grid items-start gap-x-8 @lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]" : ""}>
        {replying && (
          <ReplyForm key={`reply ${view.id}`} inquiry={view} onDone={() => setSearch("", { replace: true })} />
        )}
        {quick && chosen && replies && (
          <QuickReply
            key={`${view.id} ${quick}`}
            id={view.id}
            name={view.name}
            to={replies.to}
            reply={chosen}
            colleagues={replies.colleagues}
            onDone={() => setQuick(null)}
          />
        )}
        <div>
          {view.differences.length > 0 && !isWriting && (
            <Section title="Differs from what is on file">
              <Differences differences={view.differences} />
            </Section>
          )}
          <Answers view={view} isNarrow={isWriting} />
        </div>
      </div>
      <Meetings client={view.clientId} name={view.name} inquiry={view.id} />
      <Runs client={view.clientId} project={view.projectId} startsFor={view.projectId} />
      <Conversation client={view.clientId} />
      <AboutClient client={view.clientId} project={view.projectId} />
      <Section title="What happened">
        <TimelineList entries={view.timeline} />
      </Section>
    </Panel>
  );
}

/** What they answered, with what became of each answer. */
function Answers({ view, isNarrow }: { view: Schemas["InquiryView"]; isNarrow: boolean }) {
  return (
    <Section title="What they said">
      <dl className="grid gap-y-2.5">
        {view.answers.map((answer) => (
          <div
            key={answer.key}
            className={isNarrow ? "grid gap-x-3" : "grid grid-cols-[3rem_minmax(0,2fr)_minmax(0,3fr)] gap-x-3"}
          >
            <dt className="contents">
              <span className={`flex items-start justify-end gap-1 pt-0.5 text-dusk ${isNarrow ? "hidden" : ""}`}>
                {answer.landed && (
                  <MarginMark label={`Landed in ${answer.landed}`}>
                    <CornerDownRight size={16} aria-hidden />
                  </MarginMark>
                )}
                {answer.signal && (
                  <MarginMark label="Counts towards fit">
                    <Scale size={16} aria-hidden />
                  </MarginMark>
                )}
              </span>
              <span className="text-slate">{answer.wording}</span>
            </dt>
            <dd className="whitespace-pre-wrap wrap-anywhere">
              {answer.files.length === 0 && answer.words}
              {answer.files.map((file) => (
                <a key={file.address} href={file.address} download className="block underline">
                  {file.name} <span className="text-slate">({file.size})</span>
                </a>
              ))}
              {answer.strokes && <Drawn strokes={answer.strokes} />}
              {answer.landed && <span className="block text-note text-slate">{answer.landed}</span>}
            </dd>
          </div>
        ))}
      </dl>
      <p className="mt-3 text-slate">They saw the send-off “{view.sendOff}”.</p>
    </Section>
  );
}

/** A signature as it was drawn. */
function Drawn({ strokes }: { strokes: string }) {
  return (
    <svg
      viewBox="0 0 600 200"
      role="img"
      aria-label="The signature as it was drawn"
      className="mt-1 block w-full max-w-72 rounded-soft border border-line"
    >
      <path
        d={strokes}
        fill="none"
        stroke="currentColor"
        strokeWidth={3}
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}

function siteOf(page: string): string {
  return URL.canParse(page) ? new URL(page).host : page;
}
