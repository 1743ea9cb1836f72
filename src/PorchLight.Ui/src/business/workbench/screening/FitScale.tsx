import type { Schemas } from "../../../api/problem";
import type { Rules } from "./useScreening";

type Row = Schemas["SortedRow"];

const [width, height, foot, bins] = [600, 170, 26, 46];

/** Where past inquiries fall on the scale of points, and the thresholds between the doors. */
export function FitScale({ rules, sorted, words }: { rules: Rules; sorted: Row[]; words: string | null }) {
  const scores = sorted.map((row) => row.score);
  const [low, high] = [
    Math.min(rules.floor - 15, rules.base, ...scores) - 5,
    Math.max(rules.comeInAt + 15, rules.base, ...scores) + 5,
  ];
  const x = (points: number) => ((points - low) / (high - low)) * width;
  const binOf = (row: Row) => Math.min(bins - 1, Math.floor(((row.score - low) / (high - low)) * bins));
  const stacks = Array.from({ length: bins }, () => [] as Row[]);
  for (const row of [...sorted].sort((a, b) => Number(b.booked) - Number(a.booked))) stacks[binOf(row)]!.push(row);
  const room = height - foot - 22;
  const step = Math.min(12, room / Math.max(1, ...stacks.map((stack) => stack.length)));
  const [floor, comeIn] = [x(rules.floor), x(rules.comeInAt)];
  return (
    <figure>
      <svg viewBox={`0 0 ${width} ${height}`} className="block w-full" role="img" aria-label={words ?? "The scale"}>
        <rect x={0} y={0} width={Math.max(0, floor)} height={height - foot} className="fill-mist" />
        <rect x={comeIn} y={0} width={Math.max(0, width - comeIn)} height={height - foot} className="fill-mist" />
        <line x1={0} x2={width} y1={height - foot} y2={height - foot} className="stroke-edge" />
        {[
          [floor, rules.floor],
          [comeIn, rules.comeInAt],
        ].map(([at, points], index) => (
          <g key={index}>
            <line
              x1={at}
              x2={at}
              y1={0}
              y2={height - foot}
              className="stroke-dusk"
              strokeWidth={2}
              strokeDasharray="5 4"
            />
            <text x={at} y={height - 8} textAnchor="middle" className="fill-ink text-caption tabular-nums">
              {points}
            </text>
          </g>
        ))}
        <text x={8} y={16} className="fill-ink text-caption">
          Not now
        </text>
        {comeIn - floor > 80 && (
          <text x={floor + 8} y={16} className="fill-ink text-caption">
            Talk first
          </text>
        )}
        <text x={Math.min(comeIn + 8, width - 60)} y={16} className="fill-ink text-caption">
          Come in
        </text>
        {stacks.map((stack, bin) =>
          stack.map((row, index) => (
            <circle
              key={row.id}
              cx={((bin + 0.5) / bins) * width}
              cy={height - foot - step * (index + 0.5)}
              r={Math.max(1.5, Math.min(5, step / 2 - 0.6))}
              strokeWidth={1.4}
              className={row.booked ? "fill-dusk stroke-dusk" : "fill-card stroke-dusk"}
            >
              <title>{`${row.name}, ${row.score} points, ${row.now.words}, ${row.outcome}`}</title>
            </circle>
          )),
        )}
      </svg>
      <figcaption className="mt-1 text-slate">{words && `${words} Filled circles booked.`}</figcaption>
    </figure>
  );
}
