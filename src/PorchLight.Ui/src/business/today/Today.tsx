import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { buttonLook } from "../../kit/Button";
import { ListAndPanel } from "../../kit/ListAndPanel";
import { Row, Rows } from "../../kit/Rows";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../client";
import { useTitle } from "../frame/useTitle";
import { InquiryRows } from "../inquiries/InquiryRows";

const groups = [
  ["late", "Longer than you promised"],
  ["today", "Promised for today"],
  ["later", "Promised for later"],
] as const;

const nodPath = (nod: { runId: string; step: string }) => `/nods/${nod.runId}/${nod.step}`;

/** The day as a short note, and below it what wants you, most urgent first. */
export function Today() {
  const { runId, step } = useParams();
  useTitle(runId ? undefined : "Today");
  const today = useQuery({ queryKey: ["today"], queryFn: () => orProblem(api.GET("/api/today")) });
  const nods = today.data?.nods ?? [];
  const shown = groups
    .map(([group, title]) => ({ title, rows: today.data?.promised.filter((row) => row.group === group) ?? [] }))
    .filter(({ rows }) => rows.length > 0);
  const open = runId && step ? nodPath({ runId, step }) : null;
  return (
    <ListAndPanel home="/" rows={nods.map(nodPath)} open={open}>
      <div className="mx-auto max-w-6xl p-6 sm:px-10">
        <Failure error={today.error} />
        {today.isPending && <Skeleton />}
        {today.data && (
          <>
            <h1 className="mb-6 max-w-3xl text-[1.45rem] font-medium">{today.data.note}</h1>
            {shown.map(({ title, rows }, index) => (
              <section key={title} className="mb-6">
                <h2 className="mb-2 text-[1.07rem]">
                  {title}{" "}
                  {index === 0 && (
                    <span className="ml-1 font-body text-[0.93rem] font-normal text-slate">{today.data.clock}</span>
                  )}
                </h2>
                <InquiryRows rows={rows} withReply />
              </section>
            ))}
            {nods.length > 0 && <Nods nods={nods} gaps={today.data.gaps} open={open} />}
            {today.data.promised.length === 0 && nods.length === 0 && (
              <Empty>
                The lamp is out: nothing wants you now. New inquiries and messages that want your nod appear here by
                themselves.
              </Empty>
            )}
          </>
        )}
      </div>
    </ListAndPanel>
  );
}

function Nods({ nods, gaps, open }: { nods: Schemas["NodRow"][]; gaps: string | null; open: string | null }) {
  return (
    <section className="mb-6">
      <h2 className="mb-2 text-[1.07rem]">
        Waiting for your nod{" "}
        {gaps && <span className="ml-1 font-body text-[0.93rem] font-normal text-slate">{gaps}</span>}
      </h2>
      <Rows>
        {nods.map((nod) => (
          <Row
            key={nodPath(nod)}
            to={nodPath(nod)}
            open={nodPath(nod) === open}
            glow={nod.goes === null}
            columns="grid-cols-2 @2xl/list:grid-cols-[9.5rem_11rem_minmax(0,1fr)_14rem]"
            action={
              <Link
                to={nodPath(nod)}
                className={buttonLook("plain")}
                aria-label={`Read and send: ${nod.stepName} to ${nod.name}`}
              >
                Read and send
              </Link>
            }
          >
            <span className="truncate">{nod.stepName}</span>
            <strong className="truncate">{nod.name}</strong>
            <span className="hidden truncate @2xl/list:block">
              “{nod.subject}”
              {nod.gaps > 0 && <span className="text-slate"> {nod.gaps === 1 ? "one gap" : `${nod.gaps} gaps`}</span>}
            </span>
            <span className="hidden truncate tabular-nums @2xl/list:block">
              {nod.goes ? `goes ${nod.goes}` : `since ${nod.since}`}
            </span>
          </Row>
        ))}
      </Rows>
    </section>
  );
}
