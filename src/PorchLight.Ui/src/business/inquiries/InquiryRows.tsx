import { Link } from "react-router";
import type { Schemas } from "../../api/problem";
import { buttonLook } from "../../kit/Button";
import { FitMark } from "../../kit/marks";
import { Row, Rows } from "../../kit/Rows";

interface Props {
  rows: Schemas["InquiryRow"][];
  /** The inquiry whose panel is open. */
  open?: string;
  withReply?: boolean;
}

/** Inquiries as rows of a list. */
export function InquiryRows({ rows, open, withReply = false }: Props) {
  return (
    <Rows>
      {rows.map((row) => {
        return (
          <Row
            key={row.id}
            to={`/inquiries/${row.id}`}
            open={row.id === open}
            glow={row.urgent}
            columns="grid-cols-[7.5rem_minmax(0,1fr)] @3xl/list:grid-cols-[7.5rem_11rem_minmax(0,1fr)_15rem]"
            action={
              withReply && (
                <Link
                  to={`/inquiries/${row.id}?reply`}
                  className={buttonLook(row.urgent ? "main" : "plain")}
                  aria-label={`Reply to ${row.name}`}
                >
                  Reply
                </Link>
              )
            }
          >
            <FitMark fit={row.fit} />
            <strong className="truncate">{row.name}</strong>
            <span className="hidden truncate @3xl/list:block">{row.about}</span>
            <span
              className={`col-start-2 tabular-nums @3xl/list:col-start-auto ${row.group === "late" ? "font-semibold text-brick" : ""}`}
              title={row.promiseExactly ?? undefined}
            >
              {row.promise ?? (!row.wroteBack && <span className="text-slate">came {row.received}</span>)}
              {row.waitsFor && <span className="ml-2 font-semibold">waits for {row.waitsFor}</span>}
              {row.wroteBack && <span className="block font-semibold">wrote back {row.wroteBack}</span>}
              {row.callAsked && <span className="ml-2 font-semibold">wants a call</span>}
            </span>
          </Row>
        );
      })}
    </Rows>
  );
}
