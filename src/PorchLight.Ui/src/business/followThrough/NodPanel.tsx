import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate, useParams } from "react-router";
import { orProblem } from "../../api/problem";
import { buttonLook } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { PanelHead, PanelWaiting } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { api } from "../client";
import { useTitle } from "../shell/useTitle";
import { NodEditor } from "./NodEditor";
import { NodOfStep } from "./NodOfStep";

/** A message that waits for a nod. */
export function NodPanel() {
  const { runId = "", step = "" } = useParams();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const notice = useNotice();
  const path = { runId, step };
  const nod = useQuery({
    queryKey: ["nod", runId, step],
    queryFn: () => orProblem(api.GET("/api/nods/{runId}/{step}", { params: { path } })),
    retry: false,
    // What is being written is not fetched away from under the person; sending says if the message was settled meanwhile.
    staleTime: Infinity,
    refetchOnMount: "always",
  });
  const skip = useMutation({
    mutationFn: () => orProblem(api.POST("/api/nods/{runId}/{step}/skip", { params: { path } })),
    onSuccess: () => {
      leave();
      notice({
        words: `Skipped: ${nod.data?.stepName ?? "the message"} to ${nod.data?.name ?? "them"}.`,
        undo: () => orProblem(api.POST("/api/nods/{runId}/{step}/take-back", { params: { path } })),
      });
    },
  });
  const leave = () => {
    void navigate("/");
    void queries.invalidateQueries({ queryKey: ["today"] });
  };
  useTitle(nod.data && `${nod.data.stepName} to ${nod.data.name}`);

  // The words to be edited are those stored now, never those seen the last time.
  if (!nod.data || nod.error || !nod.isFetchedAfterMount)
    return <PanelWaiting title="A message for your nod" home="/" error={nod.error} />;
  const view = nod.data;
  return (
    <div className="p-8">
      <PanelHead
        title={`${view.stepName} to ${view.name}`}
        home="/"
        under={`From “${view.followThrough}”, ${view.goes ? `goes ${view.goes}` : `waiting since ${view.since}`}.`}
      />
      <p className="mb-4">
        {view.inquiryId && (
          <Link to={`/inquiries/${view.inquiryId}`} className={buttonLook("plain")}>
            Open their answers
          </Link>
        )}
      </p>
      {view.draft ? (
        <NodEditor
          key={`${runId}/${step}`}
          nod={view}
          draft={view.draft}
          onSent={leave}
          onSkip={() => skip.mutate()}
          skipping={skip.isPending}
        />
      ) : (
        <NodOfStep nod={view} onDone={leave} onSkip={() => skip.mutate()} skipping={skip.isPending} />
      )}
      <Failure error={skip.error} />
      <p className="mt-5 text-slate">
        {view.next ?? "It is the last step."} {view.lapses && `Without your nod it lapses ${view.lapses}.`}
      </p>
    </div>
  );
}
