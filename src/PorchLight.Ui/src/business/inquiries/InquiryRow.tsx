import { Flag } from "lucide-react";
import { Link } from "react-router";
import type { Schemas } from "../../api/problem";
import { buttonLook } from "../../kit/Button";
import { FitMark, MarginMark } from "../../kit/marks";
import type { ReactNode } from "react";
import { Row } from "../../kit/Rows";

interface Props {
  row: Schemas["InquiryRow"];
  /** Whether its panel is open. */
  open?: boolean;
  /** Whether it can be answered from its row. */
  withReply?: boolean;
  /** Whether it stands in the list of all, with what that can be filtered by. */
  isInList?: boolean;
  /** What stands before it. */
  before?: ReactNode;
}

/** An inquiry as a row of a list. */
export function InquiryRow({ row, open = false, withReply = false, isInList = false, before }: Props) {
  return (
    <Row
      to={`/inquiries/${row.id}`}
      open={open}
      glow={row.urgent}
      columns={
        isInList
          ? "grid-cols-[auto_minmax(0,1fr)] @3xl/list:grid-cols-[7.5rem_10rem_minmax(0,1fr)_8.5rem_8rem_7rem_12rem]"
          : "grid-cols-[auto_minmax(0,1fr)] @3xl/list:grid-cols-[7.5rem_11rem_minmax(0,1fr)_15rem]"
      }
      before={before}
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
      <span className="inline-flex items-center gap-1.5">
        <FitMark fit={row.fit} />
        {row.flags > 0 && (
          <MarginMark label={row.flags === 1 ? "One flag" : `${row.flags} flags`}>
            <Flag size={15} aria-hidden />
          </MarginMark>
        )}
      </span>
      <strong className="order-first col-span-2 @3xl/list:order-none @3xl/list:col-span-1 @3xl/list:truncate">
        {row.name}
      </strong>
      <span className="hidden truncate @3xl/list:block" title={row.about}>
        {row.about}
      </span>
      {isInList && (
        <>
          <span className="hidden truncate @3xl/list:block" title={row.service ?? undefined}>
            {row.service}
          </span>
          <span className="hidden truncate tabular-nums @3xl/list:block">{row.budget}</span>
          <span className="hidden truncate @3xl/list:block" title={row.lostReason ?? undefined}>
            {row.stageName}
            {row.looksAfter && <span className="block truncate text-note text-slate">{row.looksAfter}</span>}
          </span>
        </>
      )}
      <span
        className={`@max-xs/list:col-span-2 tabular-nums ${row.group === "late" ? "font-semibold text-brick" : ""}`}
        title={row.whenExactly}
      >
        {row.promise ??
          (!row.wroteBack && (
            <span className="text-slate">{row.until ? `until ${row.until}` : `came ${row.received}`}</span>
          ))}
        {row.waitsFor && <span className="ml-2 font-semibold">waits for {row.waitsFor}</span>}
        {row.wroteBack && <span className="block font-semibold">wrote back {row.wroteBack}</span>}
        {row.callAsked && <span className="ml-2 font-semibold">wants a call</span>}
      </span>
    </Row>
  );
}
