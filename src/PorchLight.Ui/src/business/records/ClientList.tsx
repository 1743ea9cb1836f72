import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { ListAndPanel, ListTitle } from "../../kit/ListAndPanel";
import { Row, Rows } from "../../kit/Rows";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../client";
import { useTitle } from "../shell/useTitle";

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
        <ListTitle open={!!id}>Clients</ListTitle>
        <Failure error={list.error} />
        {list.isPending && <Skeleton />}
        {list.data?.length === 0 && (
          <Empty>
            Nobody is here yet. Everybody who sends a form is a client from that second, with a project of their own.
          </Empty>
        )}
        {rows.length > 0 && (
          <Rows>
            {rows.map((row) => (
              <Row
                key={row.id}
                to={`/clients/${row.id}`}
                open={row.id === id}
                columns="grid-cols-[minmax(0,1fr)_5rem] @2xl/list:grid-cols-[12rem_5rem_minmax(0,1fr)_minmax(0,1fr)_13rem]"
              >
                <strong className="truncate">{row.name}</strong>
                <span>{standingWords[row.standing]}</span>
                <span className="hidden truncate @2xl/list:block">{row.email}</span>
                <span className="hidden truncate @2xl/list:block">{row.project}</span>
                <span className="hidden truncate text-slate tabular-nums @2xl/list:block">since {row.since}</span>
              </Row>
            ))}
          </Rows>
        )}
      </div>
    </ListAndPanel>
  );
}
