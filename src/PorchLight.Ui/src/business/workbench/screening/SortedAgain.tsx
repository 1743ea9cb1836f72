import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../../api/problem";
import { Button } from "../../../kit/Button";
import { fits } from "../../../kit/fits";
import { FitMark } from "../../../kit/marks";

type Report = Schemas["SortedAgain"];

const fewRows = 8;

/** Who would be sorted otherwise: the table, and each of them. */
export function Moves({ report }: { report: Report }) {
  const [all, setAll] = useState(false);
  const movers = report.sorted.filter((row) => row.moves || !row.before);
  const unsorted = report.unsorted.some((one) => one.count > 0);
  return (
    <section aria-label="Who would move">
      <h2 className="mb-2 text-section">Who would move</h2>
      <div className="rounded-soft bg-card p-4 shadow-soft">
        <table className="w-full text-left tabular-nums">
          <thead>
            <tr>
              <th scope="col" className="py-1 font-normal text-slate">
                today and afterwards
              </th>
              {fits.map(([fit, words]) => (
                <th key={fit} scope="col" className="py-1 font-normal text-slate">
                  {words}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {fits.map(([from, words]) => (
              <tr key={from}>
                <th scope="row" className="py-1 font-normal text-slate">
                  {words}
                </th>
                {fits.map(([to]) => {
                  const move = report.moves.find((one) => one.from === from && one.to === to);
                  const moved = from !== to && (move?.count ?? 0) > 0;
                  return (
                    <td key={to} className={`py-1 ${moved ? "font-semibold" : ""}`}>
                      {move?.count ?? 0}
                      {moved && <span className="ml-1 font-normal text-slate">{move?.booked} booked</span>}
                    </td>
                  );
                })}
              </tr>
            ))}
            {unsorted && (
              <tr>
                <th scope="row" className="py-1 font-normal text-slate">
                  Not sorted yet
                </th>
                {fits.map(([to]) => {
                  const first = report.unsorted.find((one) => one.to === to);
                  return (
                    <td key={to} className={`py-1 ${first?.count ? "font-semibold" : ""}`}>
                      {first?.count ?? 0}
                      {!!first?.count && <span className="ml-1 font-normal text-slate">{first.booked} booked</span>}
                    </td>
                  );
                })}
              </tr>
            )}
          </tbody>
        </table>
        <p className="mt-2">
          {report.movesWords} {report.saved}
        </p>
        {movers.length > 0 && (
          <ul className="mt-2 grid gap-1">
            {movers.slice(0, all ? undefined : fewRows).map((row) => (
              <li key={row.id} className="flex flex-wrap items-center gap-x-2">
                <Link className="font-semibold underline" to={`/inquiries/${row.id}`}>
                  {row.name}
                </Link>
                <span className="text-slate">{row.received}:</span>
                {row.before ? <FitMark fit={row.before} size={16} /> : "not sorted yet"} to{" "}
                <FitMark fit={row.now} size={16} />
                <span className="text-slate">({row.outcome})</span>
              </li>
            ))}
          </ul>
        )}
        {movers.length > fewRows && !all && (
          <Button weight="quiet" className="-ml-3" onClick={() => setAll(true)}>
            Show all {movers.length}
          </Button>
        )}
      </div>
    </section>
  );
}

/** How well the points part those who booked from the others. */
export function HowWell({ report }: { report: Report }) {
  return (
    <section aria-label="How well it sorts">
      <h2 className="mb-2 text-section">How well it sorts</h2>
      <div className="rounded-soft bg-card p-4 shadow-soft">
        <div className="flex gap-6">
          <div className="min-w-0 flex-1">
            <dl className="grid grid-cols-[7rem_minmax(0,1fr)] gap-y-2">
              {report.shares.map((share) => (
                <div key={share.fit.fit} className="contents">
                  <dt>
                    <FitMark fit={share.fit} size={18} />
                  </dt>
                  <dd className="tabular-nums">{share.words}</dd>
                </div>
              ))}
            </dl>
            {report.turnedAway && <p className="mt-2">{report.turnedAway}</p>}
          </div>
          {report.roc && report.rocWords && <Curve roc={report.roc} words={report.rocWords} />}
        </div>
        {report.rocWords && <p className="mt-2">{report.rocWords}</p>}
        <p className={`mt-2 ${report.hasEnough ? "text-slate" : "font-semibold"}`}>{report.history}</p>
      </div>
    </section>
  );
}

function Curve({ roc, words }: { roc: Schemas["RocCurve"]; words: string }) {
  const side = 110;
  const points = roc.points.map((one) => `${one.notBooked * side},${side - one.booked * side}`).join(" ");
  return (
    <svg width={side + 4} height={side + 4} viewBox={`-2 -2 ${side + 4} ${side + 4}`} role="img" aria-label={words}>
      <path d={`M0 0V${side}H${side}`} fill="none" className="stroke-edge" />
      <path d={`M0 ${side}L${side} 0`} className="stroke-line" />
      <polyline points={points} fill="none" strokeWidth={2.2} className="stroke-dusk" />
      <text x={side - 4} y={side - 8} textAnchor="end" className="fill-ink text-caption tabular-nums">
        {roc.area.toFixed(2)} of 1
      </text>
    </svg>
  );
}
