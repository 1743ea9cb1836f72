import { PageHead, pageLook } from "../../kit/Page";
import { Fragment, useDeferredValue, useState } from "react";
import { keepPreviousData, useInfiniteQuery, useMutation, useQuery } from "@tanstack/react-query";
import { ask, askByPages } from "../../api/ask";
import { useParams, useSearchParams } from "react-router";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { ListAndPanel } from "../../kit/ListAndPanel";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useTitle } from "../shell/useTitle";
import { InquiryFilters } from "./InquiryFilters";
import { everything, isEverything, useInquiryQuery } from "./inquiryQuery";
import { InquiryRows } from "./InquiryRows";
import { LeftAtTheDoor } from "./LeftAtTheDoor";
import { MoveStage } from "./MoveStage";
import { StageBoard } from "./StageBoard";
import { asideReasons, useSetAside } from "./useSetAside";
import { WriteDown } from "./WriteDown";

type Row = Schemas["InquiryRow"];

const atOnce = 100;

const withBoard = (on: boolean) => (before: URLSearchParams) => {
  if (on) before.set("board", "");
  else before.delete("board");
  return before;
};

/** The inquiries as a list one works in, grouped by what they need. */
export function InquiryList() {
  const { id } = useParams();
  const [search, setSearch] = useSearchParams();
  const isBoard = search.has("board");
  useTitle(id ? null : "Inquiries");
  const [query, setQuery] = useInquiryQuery();
  const asked = useDeferredValue(query);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const parts = useQuery(ask(["inquiry-parts"], () => api.GET("/api/inquiries/parts")));
  const list = useInfiniteQuery({
    ...askByPages(
      ["inquiries", asked],
      (skip) => api.POST("/api/inquiries/found", { body: { query: asked, skip, take: atOnce } }),
      (last, all) => {
        const shown = all.reduce((sum, page) => sum + page.rows.length, 0);
        return shown < last.total ? shown : undefined;
      },
    ),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const all = useMutation({
    mutationFn: () => orProblem(api.POST("/api/inquiries/all-found", { body: asked })),
    onSuccess: (found) => setChosen(new Set(found as string[])),
  });
  const aside = useSetAside(() => setChosen(new Set()));
  const rows = list.data?.pages.flatMap((page) => page.rows) ?? [];
  const last = list.data?.pages.at(-1);
  const groups: { key: string; title: string; rows: Row[] }[] =
    asked.order === "need"
      ? (last?.groups ?? [])
          .map((group) => ({
            key: group.need,
            title: `${group.words}, ${group.count}`,
            rows: rows.filter((row) => row.need === group.need),
          }))
          .filter((group) => group.rows.length > 0)
      : [{ key: "all", title: "", rows }];
  if (asked.backwards && asked.order === "need") groups.reverse();
  const address = encodeURIComponent(JSON.stringify(query));
  return (
    <ListAndPanel
      home="/inquiries"
      rows={groups.flatMap((group) => group.rows).map((row) => `/inquiries/${row.id}`)}
      open={id ? `/inquiries/${id}` : null}
    >
      <div className={`${pageLook} max-w-none!`}>
        <PageHead
          title="Inquiries"
          isBesidePanel={!!id}
          actions={
            <>
              {" "}
              {rows.length > 0 && (
                <a className={buttonLook("plain")} href={`/api/inquiries.csv?query=${address}`} download>
                  Save as CSV
                </a>
              )}
              <Button onClick={() => setSearch(withBoard(!isBoard), { replace: true })}>
                {isBoard ? "Show the list" : "Show the board"}
              </Button>
              <WriteDown />
            </>
          }
        />
        {parts.data && (
          <InquiryFilters parts={parts.data} query={query} onChange={setQuery} findings={findingsOf(list.error)} />
        )}
        {chosen.size > 0 && parts.data && (
          <div
            role="group"
            aria-label="With the selection"
            className="mb-3 flex flex-wrap items-center gap-2 rounded-soft bg-glow px-3 py-2"
          >
            <strong>{chosen.size} chosen</strong>
            {chosen.size < (last?.total ?? 0) && (
              <Button weight="quiet" disabled={all.isPending} onClick={() => all.mutate()}>
                Choose all {last?.total}
              </Button>
            )}
            <Button weight="quiet" onClick={() => setChosen(new Set())}>
              Choose none
            </Button>
            <MoveStage
              ids={[...chosen]}
              label="Move to a stage"
              stages={parts.data.stages}
              lostReasons={parts.data.lostReasons}
              onMoved={() => setChosen(new Set())}
            />
            {asideReasons.map(([reason, words]) => (
              <Button
                key={reason}
                weight="quiet"
                disabled={aside.isPending}
                onClick={() => aside.mutate({ ids: [...chosen], reason })}
              >
                {words.replace("It is", chosen.size === 1 ? "It is" : "They are")}
              </Button>
            ))}
            <Failure error={all.error ?? aside.error} />
          </div>
        )}
        {findingsOf(list.error).size === 0 && <Failure error={list.error ?? parts.error} />}
        {list.isPending && <Skeleton />}
        {list.data && rows.length === 0 && (
          <Empty>
            {isEverything(asked) ? (
              "Nobody has written yet. Turn on the light of a form and share its link; what people send arrives here."
            ) : (
              <>
                No inquiries match.{" "}
                <Button weight="quiet" onClick={() => setQuery({ ...everything, order: query.order })}>
                  Show all
                </Button>
              </>
            )}
          </Empty>
        )}
        {isBoard && parts.data && (
          <StageBoard
            query={asked}
            parts={parts.data}
            open={id}
            onShowAll={(stage) => {
              setQuery({ ...query, stages: [stage] });
              setSearch({});
            }}
          />
        )}
        {!isBoard &&
          groups.map((group) => (
            <Fragment key={group.key}>
              {group.key === "ended" && isEverything(asked) && <LeftAtTheDoor />}
              <section aria-label={group.title || "Inquiries"} className="mb-6">
                {group.title && <h2 className="mb-2 text-[1.07rem]">{group.title}</h2>}
                <InquiryRows rows={group.rows} open={id} chosen={chosen} onChoose={setChosen} />
              </section>
            </Fragment>
          ))}
        {!isBoard && isEverything(asked) && list.data && !groups.some((group) => group.key === "ended") && (
          <LeftAtTheDoor />
        )}
        {!isBoard && list.hasNextPage && (
          <Button disabled={list.isFetchingNextPage} onClick={() => void list.fetchNextPage()}>
            Show more of {last?.total}
          </Button>
        )}
      </div>
    </ListAndPanel>
  );
}
