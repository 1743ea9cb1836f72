import SignaturePad from "signature_pad";
import { useEffect, useEffectEvent, useRef, useState } from "react";
import { answerOf, box, Part, quietButton, type AnswerOf, type ControlProps } from "./control";
import { Choice } from "./choices";

const [width, height] = [600, 200];

/** A signature: the name typed, or written out and a line drawn beside it. Who cannot draw loses nothing. */
export default function Signature({ id, control, answer, onChange, described }: ControlProps<"signature">) {
  const signature = answerOf(answer, "signature") ?? { kind: "signature", name: "", strokes: null, onBehalfOf: null };
  const [draws, setDraws] = useState(Boolean(signature.strokes));
  const [represents, setRepresents] = useState(typeof signature.onBehalfOf === "string");
  const set = (change: Partial<AnswerOf<"signature">>) => {
    const next = { ...signature, ...change } as AnswerOf<"signature">;
    onChange(next.name || next.strokes || next.onBehalfOf != null ? next : undefined);
  };
  return (
    <div className="grid gap-3">
      <p className="whitespace-pre-line">{control.statement}</p>
      {control.forOthers && (
        <div className="grid gap-2 sm:grid-cols-2">
          {[false, true].map((others) => (
            <Choice
              key={String(others)}
              id={`${id}-${others ? "others" : "self"}`}
              type="radio"
              name={`${id}-for`}
              label={others ? "I may sign for someone else" : "I sign for myself"}
              checked={represents === others}
              invalid={undefined}
              onChange={() => {
                setRepresents(others);
                set({ onBehalfOf: others ? "" : null });
              }}
            />
          ))}
        </div>
      )}
      {represents && (
        <Part label="Whom you sign for">
          <input
            type="text"
            className={box}
            value={signature.onBehalfOf ?? ""}
            onChange={({ target }) => set({ onBehalfOf: target.value })}
            {...described}
          />
        </Part>
      )}
      <Part label="Your full name">
        <input
          type="text"
          autoComplete="name"
          className={box}
          value={signature.name}
          onChange={({ target }) => set({ name: target.value })}
          {...described}
        />
      </Part>
      {draws ? (
        <Drawing strokes={signature.strokes ?? null} onDrawn={(strokes) => set({ strokes })} />
      ) : (
        signature.name && (
          <p className="rounded-soft border border-edge px-3 py-4 font-head text-title italic">{signature.name}</p>
        )
      )}
      <button
        type="button"
        className={`${quietButton} w-fit`}
        onClick={() => {
          setDraws(!draws);
          if (draws) set({ strokes: null });
        }}
      >
        {draws ? "My typed name is my signature" : "Draw it instead"}
      </button>
    </div>
  );
}

function Drawing({ strokes, onDrawn }: { strokes: string | null; onDrawn: (strokes: string | null) => void }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const pad = useRef<SignaturePad | null>(null);
  // What was drawn before stays as it is; whoever wants another one draws it anew.
  const [fixed, setFixed] = useState(strokes);
  const finish = useEffectEvent((own: SignaturePad, field: HTMLCanvasElement) => onDrawn(toPath(own, field)));

  useEffect(() => {
    const field = canvas.current;
    if (!field) return;
    const own = new SignaturePad(field, { penColor: "#1D2033", minWidth: 1.5, maxWidth: 2.5 });
    pad.current = own;
    own.addEventListener("endStroke", () => finish(own, field));
    return () => own.off();
  }, [fixed]);

  return (
    <div>
      {fixed ? (
        <svg
          viewBox={`0 0 ${width} ${height}`}
          role="img"
          aria-label="Your drawn signature"
          className="block w-full rounded-soft border border-edge bg-card"
        >
          <path
            d={fixed}
            fill="none"
            stroke="currentColor"
            strokeWidth={2}
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        </svg>
      ) : (
        <canvas
          ref={canvas}
          width={width}
          height={height}
          aria-label="Draw your signature here"
          className="block aspect-[3/1] w-full touch-none rounded-soft border border-edge bg-card"
        />
      )}
      <button
        type="button"
        className="mt-1 min-h-11 underline"
        onClick={() => {
          pad.current?.clear();
          setFixed(null);
          onDrawn(null);
        }}
      >
        Clear the drawing
      </button>
    </div>
  );
}

/** The strokes as moves and lines on a field of 600 by 200, whatever the size on screen. */
function toPath(pad: SignaturePad, canvas: HTMLCanvasElement): string {
  const field = canvas.getBoundingClientRect();
  const [x, y] = [width / field.width, height / field.height];
  const at = (value: number, most: number) => Math.min(most, Math.max(0, Math.round(value)));
  return pad
    .toData()
    .flatMap((group) =>
      group.points.map(
        (point, index) => `${index === 0 ? "M" : "L"}${at(point.x * x, width)} ${at(point.y * y, height)}`,
      ),
    )
    .join("");
}
