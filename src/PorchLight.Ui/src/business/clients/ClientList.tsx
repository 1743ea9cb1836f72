import { useQuery } from "@tanstack/react-query";
import { Link, useLocation } from "react-router";
import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { buttonLook } from "../../kit/Button";
import { ListAndPanel } from "../../kit/ListAndPanel";
import { PageHead, pageLook } from "../../kit/Page";
import { Row } from "../../kit/Rows";
import { useList } from "../lists/list";
import { ListBody, SaveList } from "../lists/ListBody";
import { useTitle } from "../shell/useTitle";
import { AddClient } from "./AddClient";
import { BulkActions } from "./BulkActions";
import { standingWords } from "./standings";

/** The clients as a list one works in. */
export function ClientList() {
  // The panel beside the list may be about something else than one client.
  const { pathname } = useLocation();
  const id = /^\/clients\/([^/]+)/.exec(pathname)?.[1];
  useTitle(id ? null : "Clients");
  const list = useList("/api/clients", "/clients");
  const columns = (list.asked.columns ?? []).map(
    (key) => list.choices?.fields.find((one) => one.field.key === key)?.field.label ?? "",
  );
  const isWide = columns.length > 0;
  const template = `minmax(9rem,1.2fr) 5rem ${isWide ? columns.map(() => "minmax(0,1fr)").join(" ") : "minmax(0,1.4fr) minmax(0,1fr)"} 12rem`;
  return (
    <ListAndPanel
      home={list.home}
      rows={list.rows.map((row) => `/clients/${row.id}`)}
      open={id ? `/clients/${id}` : null}
    >
      <div className={`${pageLook} ${isWide ? "max-w-none!" : ""}`}>
        <PageHead
          title="Clients"
          isBesidePanel={!!id}
          actions={
            <>
              <SaveList list={list} />
              <SaveList list={list} as="vcf" />
              <Link className={buttonLook("plain")} to="/clients/import">
                Import
              </Link>
              <AddClient />
            </>
          }
        />
        <PossibleDuplicates />
        <ListBody
          list={list}
          one="client"
          many="clients"
          search="Search everything"
          all="Everyone"
          empty="No clients yet. Anyone who sends a form becomes a client at once, with a project."
          open={id}
          withSeveral={(ids) => (
            <BulkActions ids={ids} standingOf={(one) => list.rows.find((row) => row.id === one)?.standing} />
          )}
          head={
            isWide && (
              <div
                style={{ gridTemplateColumns: template }}
                className="ml-11 hidden gap-x-4 px-4 pb-1 text-note text-slate @2xl/list:grid"
              >
                {["Name", "Standing", ...columns, "With us since"].map((label, index) => (
                  <span key={index} className="truncate">
                    {label}
                  </span>
                ))}
              </div>
            )
          }
        >
          {(row, choose) => (
            <Row
              to={`/clients/${row.id}`}
              open={row.id === id}
              glow={row.differences > 0}
              template={template}
              columns="grid-cols-[minmax(0,1fr)_auto] @2xl/list:grid-cols-(--columns)"
              before={choose(row.name)}
            >
              <span className="min-w-0">
                <strong className="block @2xl/list:truncate">{row.name}</strong>
                {(row.tags.length > 0 || row.differences > 0) && (
                  <span className="block truncate text-note text-slate">
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
              {isWide ? (
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
              <span className="hidden text-slate tabular-nums @2xl/list:block" title={row.sinceExactly}>
                {isWide ? row.since : `since ${row.since}`}
              </span>
            </Row>
          )}
        </ListBody>
      </div>
    </ListAndPanel>
  );
}

/** That somebody may stand in the list twice. */
function PossibleDuplicates() {
  const count = useQuery(ask(["perhaps-same", "count"], () => api.GET("/api/clients/perhaps-same/count"))).data;
  if (!count) return null;
  return (
    <p className="my-3 flex flex-wrap items-center gap-x-3 rounded-soft bg-glow px-4 py-2">
      {count === 1 ? "One possible duplicate." : `${count.toLocaleString("en")} possible duplicates.`}
      <Link className="underline" to="/clients/perhaps-the-same">
        Look at them
      </Link>
    </p>
  );
}
