import { useEffect, useEffectEvent, useRef, useState } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask, askOnce } from "../../api/ask";
import { Link, useNavigate, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { CheckBox } from "../../kit/fields";
import { KeyCap } from "../../kit/KeyCap";
import { useLetters } from "../../kit/letters";
import { useNotice } from "../../kit/Notice";
import { Panel, PanelWaiting } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { goToOpenGap } from "../messages/editor/goToOpenGap";
import { useTitle } from "../shell/useTitle";
import { useSendKey } from "../../api/useSendKey";
import { NodContext } from "./NodContext";
import { NodEditor } from "./NodEditor";
import { NodOfStep } from "./NodOfStep";

const nodPath = (nod: { runId: string; step: string }) => `/nods/${nod.runId}/${nod.step}`;

/** A step that waits for a nod, one of many in one sitting: once it is settled or put off, the next stands there. */
export function NodPanel() {
  const { runId = "", step = "" } = useParams();
  // Whoever comes back to one that was put off sees it as it is stored by then.
  return <Nod key={`${runId}/${step}`} runId={runId} step={step} />;
}

function Nod({ runId, step }: { runId: string; step: string }) {
  const navigate = useNavigate();
  const notice = useNotice();
  const sendKey = useSendKey();
  const path = { runId, step };
  const [isEnough, setEnough] = useState<ReadonlySet<string>>(new Set());
  const nod = useQuery({
    ...askOnce(["nod", runId, step], () => api.GET("/api/nods/{runId}/{step}", { params: { path } })),
    retry: false,
    // What is being written is not fetched away from under the person; sending says if the message was settled meanwhile.
    staleTime: Infinity,
    refetchOnMount: "always",
  });
  const today = useQuery(ask(["today"], () => api.GET("/api/today")));
  const waiting = (today.data?.nods ?? []).filter((one) => one.goes === null);
  const at = waiting.findIndex((one) => one.runId === runId && one.step === step);
  const others = [...waiting.slice(at + 1), ...waiting.slice(0, Math.max(at, 0))];
  const same = others.filter((one) => one.clientId === nod.data?.clientId && one.runId !== runId);
  const instead = same.filter((one) => isEnough.has(nodPath(one))).map((one) => ({ runId: one.runId, step: one.step }));
  const goOn = () => {
    const next = others[0];
    void navigate(next ? nodPath(next) : "/");
  };
  const settled = () => {
    // What was skipped with it is not the next one.
    const next = others.find((one) => !isEnough.has(nodPath(one)));
    void navigate(next ? nodPath(next) : "/");
  };
  /** What has its nod can be taken back for a moment; then it goes. */
  const nodded = ({ takeBackSeconds }: Schemas["NodSent"]) => {
    settled();
    if (takeBackSeconds)
      notice({
        words: `${nod.data?.stepName ?? "It"} to ${nod.data?.name ?? "them"} goes in ${takeBackSeconds} seconds.`,
        undo: async () => {
          await orProblem(api.POST("/api/nods/{runId}/{step}/take-nod-back", { params: { path }, body: { instead } }));
          void navigate(nodPath(path));
        },
      });
  };
  const skip = useMutation({
    mutationFn: () => orProblem(api.POST("/api/nods/{runId}/{step}/skip", { params: { path } })),
    onSuccess: () => {
      settled();
      notice({
        words: `Skipped: ${nod.data?.stepName ?? "the step"} to ${nod.data?.name ?? "them"}.`,
        undo: () => orProblem(api.POST("/api/nods/{runId}/{step}/take-skip-back", { params: { path } })),
      });
    },
  });
  const elsewhere = useMutation({
    mutationFn: (inquiry: string) => {
      const body = { text: "" };
      return orProblem(
        api.POST("/api/inquiries/{id}/got-in-touch", {
          params: { path: { id: inquiry } },
          body,
          headers: sendKey.for({ inquiry }),
        }),
      );
    },
    onSuccess: () => {
      sendKey.done();
      settled();
      notice({ words: `Noted that ${nod.data?.name ?? "they"} got in touch; what was to follow is stopped.` });
    },
  });
  useTitle(nod.data && `${nod.data.stepName} to ${nod.data.name}`);
  const frame = useRef<HTMLDivElement>(null);
  const inquiry = nod.data?.inquiryId ?? null;
  const toGap = () => goToOpenGap(frame.current);
  useLetters([
    { letter: "G", words: "To the first gap", run: toGap },
    { letter: "S", words: "Skip this one", run: () => !skip.isPending && skip.mutate() },
    { letter: "L", words: "Later: next one", run: goOn },
    ...(inquiry
      ? [
          {
            letter: "E",
            words: "They answered elsewhere",
            run: () => !elsewhere.isPending && elsewhere.mutate(inquiry),
          },
        ]
      : []),
  ]);
  // From wherever one writes, one key sends it.
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    if (event.key !== "Enter" || !(event.ctrlKey || event.metaKey)) return;
    event.preventDefault();
    frame.current?.querySelector<HTMLElement>("[data-nods]")?.click();
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onKey(event);
    addEventListener("keydown", listen);
    return () => removeEventListener("keydown", listen);
  }, []);

  // The words to be edited are those stored now, never those seen the last time.
  if (!nod.data || nod.error || !nod.isFetchedAfterMount)
    return <PanelWaiting title="A message for your nod" home="/" error={nod.error} />;
  const view = nod.data;
  const of = waiting.length > 1 && at >= 0 ? ` ${at + 1} of ${waiting.length}.` : "";
  return (
    <Panel
      ref={frame}
      title={`${view.stepName} to ${view.name}`}
      home="/"
      under={`From “${view.followThrough}”, ${view.goes ? `goes ${view.goes}` : `waiting since ${view.since}`}.${of}`}
    >
      {same.map((one) => (
        <div key={nodPath(one)} className="mb-4 rounded-soft bg-glow p-3">
          <p>
            Another step for {view.name} waits, too:{" "}
            <Link to={nodPath(one)} className="underline">
              {one.stepName}
            </Link>
            . Perhaps one message is enough.
          </p>
          <CheckBox
            label={`Skip “${one.stepName}” when this one goes`}
            checked={isEnough.has(nodPath(one))}
            onChange={(yes) => {
              const next = new Set(isEnough);
              if (yes) next.add(nodPath(one));
              else next.delete(nodPath(one));
              setEnough(next);
            }}
          />
        </div>
      ))}
      {view.draft ? (
        <NodEditor key={`${runId}/${step}`} nod={view} draft={view.draft} instead={instead} onSent={nodded} />
      ) : (
        <NodOfStep key={`${runId}/${step}`} nod={view} instead={instead} onDone={nodded} />
      )}
      <p className="mt-2 flex flex-wrap gap-2">
        <Button disabled={skip.isPending} onClick={() => skip.mutate()}>
          Skip this one <KeyCap>S</KeyCap>
        </Button>
        {others.length > 0 && (
          <Button onClick={goOn}>
            Later <KeyCap>L</KeyCap>
          </Button>
        )}
        {inquiry && (
          <>
            <Button disabled={elsewhere.isPending} onClick={() => elsewhere.mutate(inquiry)}>
              They answered elsewhere <KeyCap>E</KeyCap>
            </Button>
            <Link to={`/inquiries/${inquiry}`} className={buttonLook("quiet")}>
              Open their answers
            </Link>
          </>
        )}
      </p>
      <Failure error={skip.error ?? elsewhere.error} />
      <p className="mt-4 text-slate">
        {view.next ?? "It is the last step."} {view.lapses && `Without your nod it lapses ${view.lapses}.`}
      </p>
      {inquiry && <NodContext inquiry={inquiry} />}
    </Panel>
  );
}
