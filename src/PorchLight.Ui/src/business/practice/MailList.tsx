import { PageHead, pageLook } from "../../kit/Page";
import { MailOpen, Reply } from "lucide-react";
import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { useParams } from "react-router";
import { ListAndPanel } from "../../kit/ListAndPanel";
import { Row, Rows } from "../../kit/Rows";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useTitle } from "../shell/useTitle";

/** The practice mailbox: nothing in it has left this program. */
export function MailList() {
  const { id } = useParams();
  useTitle(id ? null : "Practice mail");
  const list = useQuery(ask(["practice-mail"], () => api.GET("/api/practice/mail")));
  const rows = list.data ?? [];
  return (
    <ListAndPanel
      home="/practice-mail"
      rows={rows.map((row) => `/practice-mail/${row.id}`)}
      open={id ? `/practice-mail/${id}` : null}
    >
      <div className={pageLook}>
        <PageHead title="Practice mail" isBesidePanel={!!id} />
        <p className="mb-4 text-slate">
          What would have gone out by mail, and what came back. Nothing here has left this program.
        </p>
        <Failure error={list.error} />
        {list.isPending && <Skeleton />}
        {list.data?.length === 0 && (
          <Empty>No message has gone out yet. Send an inquiry through a form, and its thank-you appears here.</Empty>
        )}
        {rows.length > 0 && (
          <Rows>
            {rows.map((row) => (
              <Row
                key={row.id}
                to={`/practice-mail/${row.id}`}
                open={row.id === id}
                columns="grid-cols-[6rem_minmax(0,1fr)] @2xl/list:grid-cols-[6rem_16rem_minmax(0,1fr)_13rem]"
              >
                <span className="inline-flex items-center gap-2 whitespace-nowrap">
                  {row.incoming ? <Reply size={18} aria-hidden /> : <MailOpen size={18} aria-hidden />}
                  {row.incoming ? "from" : "to"}
                </span>
                <span className="hidden truncate @2xl/list:block">{row.who}</span>
                <span className="min-w-0">
                  <strong className="block truncate">{row.subject}</strong>
                  <span className="block truncate text-slate @2xl/list:hidden">{row.who}</span>
                </span>
                <span className="hidden truncate text-slate tabular-nums @2xl/list:block">{row.at}</span>
              </Row>
            ))}
          </Rows>
        )}
      </div>
    </ListAndPanel>
  );
}
