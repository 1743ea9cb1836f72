import { Link } from "react-router";
import type { Schemas } from "../../api/problem";
import { buttonLook } from "../../kit/Button";
import { FitMark } from "../../kit/marks";

type Row = Schemas["InquiryRow"];

/** Inquiries as rows of a list. */
export function InquiryRows({ rows, open, withReply = false }: { rows: Row[]; open?: string; withReply?: boolean }) {
  return (
    <ul className="overflow-hidden rounded-soft bg-card shadow-soft">
      {rows.map((row) => {
        const urgent = row.group === "late" || row.group === "today";
        return (
          <li
            key={row.id}
            className={`flex min-h-11 items-center border-b border-line last:border-0 ${urgent ? "bg-glow" : ""} ${row.id === open ? "shadow-[inset_4px_0_0_var(--color-dusk)]" : ""}`}
          >
            <Link
              data-row
              to={`/inquiries/${row.id}`}
              aria-current={row.id === open ? "true" : undefined}
              className="grid min-w-0 flex-1 grid-cols-[7.5rem_minmax(0,1fr)] items-center gap-x-4 px-4 py-2 -outline-offset-2 hover:bg-mist/70 @2xl/list:grid-cols-[7.5rem_11rem_minmax(0,1fr)_14rem]"
            >
              <FitMark fit={row.fit} />
              <strong className="truncate">{row.name}</strong>
              <span className="hidden truncate @2xl/list:block">{row.about}</span>
              <span
                className={`col-start-2 tabular-nums @2xl/list:col-start-auto @2xl/list:truncate ${row.group === "late" ? "font-semibold text-brick" : ""}`}
                title={row.promiseExactly ?? undefined}
              >
                {row.promise ?? <span className="text-slate">came {row.received}</span>}
                {row.callAsked && <span className="ml-2 font-semibold">wants a call</span>}
              </span>
            </Link>
            {withReply && (
              <Link
                to={`/inquiries/${row.id}?reply`}
                className={`${buttonLook(urgent ? "main" : "plain")} mr-3 max-sm:hidden`}
                aria-label={`Reply to ${row.name}`}
              >
                Reply
              </Link>
            )}
          </li>
        );
      })}
    </ul>
  );
}
