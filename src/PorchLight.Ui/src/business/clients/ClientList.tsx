import { PageHead, pageLook } from "../../kit/Page";
import { useDeferredValue, useState } from "react";
import { keepPreviousData, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { ask, askByPages } from "../../api/ask";
import { Link, useLocation } from "react-router";
import { findingsOf } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { ListAndPanel } from "../../kit/ListAndPanel";
import { Row, Rows } from "../../kit/Rows";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useTitle } from "../shell/useTitle";
import { AddClient } from "./AddClient";
import { BulkActions } from "./BulkActions";
import { ClientFilters } from "./ClientFilters";
import { everybody, isEverybody, useClientQuery } from "./clientQuery";
import { standingWords } from "./standings";

const atOnce = 100;

/** The clients as a list one works in. */
export function ClientList() {
  // The panel beside the list may be about something else than one client.
  const { pathname } = useLocation();
  const id = /^\/clients\/([^/]+)/.exec(pathname)?.[1];
  useTitle(id ? null : "Clients");
  const [query, setQuery] = useClientQuery();
  const asked = useDeferredValue(query);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const parts = useQuery(ask(["client-parts"], () => api.GET("/api/clients/parts")));
  const list = useInfiniteQuery({
    ...askByPages(
      ["clients", asked],
      (skip) => api.POST("/api/clients/found", { body: { query: asked, skip, take: atOnce } }),
      (last, all) => {
        const shown = all.reduce((sum, page) => sum + page.rows.length, 0);
        return shown < last.total ? shown : undefined;
      },
    ),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const rows = list.data?.pages.flatMap((page) => page.rows) ?? [];
  const total = list.data?.pages.at(-1)?.total ?? 0;
  const columns = asked.columns.map(
    (key) => parts.data?.fields.find((one) => one.field.key === key)?.field.label ?? "",
  );
  const template = `minmax(9rem,1.2fr) 5rem ${columns.length > 0 ? columns.map(() => "minmax(0,1fr)").join(" ") : "minmax(0,1.4fr) minmax(0,1fr)"} 12rem`;
  const choose = (ids: string[]) => setChosen(new Set(ids));
  const isWide = columns.length > 0;
  const address = encodeURIComponent(JSON.stringify(query));
  return (
    <ListAndPanel home="/clients" rows={rows.map((row) => `/clients/${row.id}`)} open={id ? `/clients/${id}` : null}>
      <div className={`${pageLook} ${isWide ? "max-w-none!" : ""}`}>
        <PageHead
          title="Clients"
          isBesidePanel={!!id}
          actions={
            <>
              {total > 0 && (
                <>
                  <a className={buttonLook("plain")} href={`/api/clients.csv?query=${address}`} download>
                    Save as CSV
                  </a>
                  <a className={buttonLook("plain")} href={`/api/clients.vcf?query=${address}`} download>
                    Save as vCard
                  </a>
                </>
              )}
              <Link className={buttonLook("plain")} to="/clients/import">
                Import
              </Link>
              <AddClient />
            </>
          }
        />
        {!!parts.data?.perhapsSame && (
          <p className="my-3 flex flex-wrap items-center gap-x-3 rounded-soft bg-glow px-4 py-2">
            {parts.data.perhapsSame === 1
              ? "One possible duplicate."
              : `${parts.data.perhapsSame.toLocaleString("en")} possible duplicates.`}
            <Link className="underline" to="/clients/perhaps-the-same">
              Look at them
            </Link>
          </p>
        )}
        {parts.data && (
          <ClientFilters parts={parts.data} query={query} onChange={setQuery} findings={findingsOf(list.error)} />
        )}
        {chosen.size > 0 && (
          <BulkActions
            chosen={chosen}
            standingOf={(one) => rows.find((row) => row.id === one)?.standing}
            query={asked}
            total={total}
            onChoose={choose}
          />
        )}
        {findingsOf(list.error).size === 0 && <Failure error={list.error ?? parts.error} />}
        {list.isPending && <Skeleton />}
        {list.data && rows.length === 0 && (
          <Empty>
            {isEverybody(asked) ? (
              "No clients yet. Anyone who sends a form becomes a client at once, with a project."
            ) : (
              <>
                Nobody is found like that.{" "}
                <Button weight="quiet" onClick={() => setQuery({ ...everybody, columns: query.columns })}>
                  Show everyone
                </Button>
              </>
            )}
          </Empty>
        )}
        {rows.length > 0 && (
          <>
            <p role="status" className="mb-1 text-slate">
              {total === 1 ? "One client" : `${total.toLocaleString("en")} clients`}
              {columns.length > 0 && <span className="sr-only">, with {columns.join(", ")}</span>}
            </p>
            {columns.length > 0 && (
              <div
                aria-hidden
                style={{ gridTemplateColumns: template }}
                className="ml-11 hidden gap-x-4 px-4 pb-1 text-[0.9rem] text-slate @2xl/list:grid"
              >
                <span>Name</span>
                <span>Standing</span>
                {columns.map((label, index) => (
                  <span key={index} className="truncate">
                    {label}
                  </span>
                ))}
                <span>With us since</span>
              </div>
            )}
            <Rows>
              {rows.map((row) => (
                <Row
                  key={row.id}
                  to={`/clients/${row.id}`}
                  open={row.id === id}
                  glow={row.differences > 0}
                  template={template}
                  columns="grid-cols-[minmax(0,1fr)_auto] @2xl/list:grid-cols-(--columns)"
                  before={
                    <label className="flex size-11 shrink-0 items-center justify-center">
                      <input
                        type="checkbox"
                        aria-label={`Choose ${row.name}`}
                        className="size-[1.15rem] accent-dusk"
                        checked={chosen.has(row.id!)}
                        onChange={(e) => {
                          const next = new Set(chosen);
                          if (e.target.checked) next.add(row.id!);
                          else next.delete(row.id!);
                          setChosen(next);
                        }}
                      />
                    </label>
                  }
                >
                  <span className="min-w-0">
                    <strong className="block @2xl/list:truncate">{row.name}</strong>
                    {(row.tags.length > 0 || row.differences > 0) && (
                      <span className="block truncate text-[0.9rem] text-slate">
                        {[
                          ...(row.differences > 0
                            ? [row.differences === 1 ? "one answer differs" : `${row.differences} answers differ`]
                            : []),
                          ...row.tags,
                        ].join(", ")}
                      </span>
                    )}
                  </span>
                  <span>{standingWords[row.standing]}</span>
                  {columns.length > 0 ? (
                    row.cells.map((cell, index) => (
                      <span key={index} className="hidden truncate @2xl/list:block" title={cell}>
                        {cell}
                      </span>
                    ))
                  ) : (
                    <>
                      <span className="hidden truncate @2xl/list:block">{row.email}</span>
                      <span className="hidden truncate @2xl/list:block">{row.project}</span>
                    </>
                  )}
                  <span className="hidden text-slate tabular-nums @2xl/list:block">
                    {columns.length > 0 ? row.since : `since ${row.since}`}
                  </span>
                </Row>
              ))}
            </Rows>
            {list.hasNextPage && (
              <Button className="mt-3" disabled={list.isFetchingNextPage} onClick={() => void list.fetchNextPage()}>
                Show more
              </Button>
            )}
          </>
        )}
      </div>
    </ListAndPanel>
  );
}
