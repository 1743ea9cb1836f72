import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { ListAndPanel } from "../../kit/ListAndPanel";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../client";
import { useTitle } from "../frame/useTitle";

export const standingWords: Record<Schemas["Standing"], string> = {
  lead: "Lead",
  active: "Active",
  past: "Past",
  archived: "Archived",
};

export function ClientList() {
  const { id } = useParams();
  useTitle(id ? undefined : "Clients");
  const list = useQuery({ queryKey: ["clients"], queryFn: () => orProblem(api.GET("/api/clients")) });
  const rows = list.data ?? [];
  return (
    <ListAndPanel home="/clients" rows={rows.map((row) => `/clients/${row.id}`)} open={id ? `/clients/${id}` : null}>
      <div className="mx-auto max-w-6xl p-6">
        <h1 className="mb-4 text-2xl">Clients</h1>
        <Failure error={list.error} />
        {list.isPending && <Skeleton />}
        {list.data?.length === 0 && (
          <Empty>
            Nobody is here yet. Everybody who sends a form is a client from that second, with a project of their own.
          </Empty>
        )}
        {rows.length > 0 && (
          <ul className="overflow-hidden rounded-soft bg-card shadow-soft">
            {rows.map((row) => (
              <li
                key={row.id}
                className={`border-b border-line last:border-0 ${row.id === id ? "shadow-[inset_4px_0_0_var(--color-dusk)]" : ""}`}
              >
                <Link
                  data-row
                  to={`/clients/${row.id}`}
                  aria-current={row.id === id ? "true" : undefined}
                  className="grid min-h-11 grid-cols-[minmax(0,1fr)_5rem] items-center gap-x-4 px-4 py-2 -outline-offset-2 hover:bg-mist/70 @2xl/list:grid-cols-[12rem_5rem_minmax(0,1fr)_minmax(0,1fr)_13rem]"
                >
                  <strong className="truncate">{row.name}</strong>
                  <span>{standingWords[row.standing]}</span>
                  <span className="hidden truncate @2xl/list:block">{row.email}</span>
                  <span className="hidden truncate @2xl/list:block">{row.project}</span>
                  <span className="hidden truncate text-slate tabular-nums @2xl/list:block">since {row.since}</span>
                </Link>
              </li>
            ))}
          </ul>
        )}
      </div>
    </ListAndPanel>
  );
}
