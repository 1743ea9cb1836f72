import { MailOpen, Reply } from "lucide-react";
import { useParams } from "react-router";
import { ListAndPanel } from "../../kit/ListAndPanel";
import { PageHead, pageLook } from "../../kit/Page";
import { Row } from "../../kit/Rows";
import { useList } from "../lists/list";
import { ListBody, SaveList } from "../lists/ListBody";
import { useTitle } from "../shell/useTitle";

/** The practice mailbox: nothing in it has left this program. */
export function MailList() {
  const { id } = useParams();
  useTitle(id ? null : "Practice mail");
  const list = useList("/api/practice/mail", "/practice-mail");
  return (
    <ListAndPanel
      home={list.home}
      rows={list.rows.map((row) => `/practice-mail/${row.id}`)}
      open={id ? `/practice-mail/${id}` : null}
    >
      <div className={pageLook}>
        <PageHead title="Practice mail" isBesidePanel={!!id} actions={<SaveList list={list} />} />
        <p className="mb-4 text-slate">
          What would have gone out by mail, and what came back. Nothing here has left this program.
        </p>
        <ListBody
          list={list}
          one="message"
          many="messages"
          search="Search addresses, subjects and texts"
          all="All practice mail"
          empty="No message has gone out yet. Send an inquiry through a form, and its thank-you appears here."
          open={id}
        >
          {(row) => (
            <Row
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
              <span className="hidden truncate text-slate tabular-nums @2xl/list:block" title={row.exactly}>
                {row.at}
              </span>
            </Row>
          )}
        </ListBody>
      </div>
    </ListAndPanel>
  );
}
