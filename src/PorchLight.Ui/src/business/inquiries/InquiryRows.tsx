import { Flag } from "lucide-react";
import { Link } from "react-router";
import type { Schemas } from "../../api/problem";
import { buttonLook } from "../../kit/Button";
import { FitMark, MarginMark } from "../../kit/marks";
import { Row, Rows } from "../../kit/Rows";

type InquiryRow = Schemas["InquiryRow"];

interface Props {
  rows: InquiryRow[];
  /** The inquiry whose panel is open. */
  open?: string;
  withReply?: boolean;
  /** Those chosen for what is done to several at once; without it none can be chosen. */
  chosen?: ReadonlySet<string>;
  onChoose?: (chosen: ReadonlySet<string>) => void;
}

/** Inquiries as rows of a list. */
export function InquiryRows({ rows, open, withReply = false, chosen, onChoose }: Props) {
  const toggle = (id: string, on: boolean) => {
    const next = new Set(chosen);
    if (on) next.add(id);
    else next.delete(id);
    onChoose?.(next);
  };
  return (
    <Rows>
      {rows.map((row) => (
        <Row
          key={row.id}
          to={`/inquiries/${row.id}`}
          open={row.id === open}
          glow={row.urgent}
          columns={
            chosen
              ? "grid-cols-[auto_minmax(0,1fr)] @3xl/list:grid-cols-[7.5rem_10rem_minmax(0,1fr)_8.5rem_8rem_7rem_12rem]"
              : "grid-cols-[auto_minmax(0,1fr)] @3xl/list:grid-cols-[7.5rem_11rem_minmax(0,1fr)_15rem]"
          }
          before={
            chosen && (
              <label className="flex size-11 shrink-0 items-center justify-center">
                <input
                  type="checkbox"
                  aria-label={`Choose ${row.name}, ${row.received}`}
                  className="size-[1.15rem] accent-dusk"
                  checked={chosen.has(row.id)}
                  onChange={(e) => toggle(row.id, e.target.checked)}
                />
              </label>
            )
          }
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
          {chosen && (
            <>
              <span className="hidden truncate @3xl/list:block" title={row.service ?? undefined}>
                {row.service}
              </span>
              <span className="hidden truncate tabular-nums @3xl/list:block">{row.budget}</span>
              <span className="hidden truncate @3xl/list:block" title={row.lostReason ?? undefined}>
                {row.stageName}
                {row.looksAfter && <span className="block truncate text-[0.9rem] text-slate">{row.looksAfter}</span>}
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
      ))}
    </Rows>
  );
}
