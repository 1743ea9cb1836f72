import type { Schemas } from "../../../api/problem";
import { Button } from "../../../kit/Button";

interface Props {
  ready: Schemas["ReadySignal"][];
  onTake: (signal: Schemas["Signal"]) => void;
}

/** Signals that are ready for the questions of this form, one press each. */
export function ReadySignals({ ready, onTake }: Props) {
  if (ready.length === 0) return null;
  return (
    <section aria-label="Ready for your questions" className="mt-4">
      <h2 className="mb-2 text-section">Ready for your questions</h2>
      <ul className="grid gap-1.5">
        {ready.map(({ signal, needs, renews }) => (
          <li key={signal.key} className="flex flex-wrap items-baseline gap-x-2">
            {needs ? (
              <>
                <span>{signal.sentence}.</span>
                <span className="text-slate">{needs}</span>
              </>
            ) : (
              <>
                <Button
                  aria-label={`${renews ? "Use the new one" : "Add"}: ${signal.sentence}`}
                  onClick={() => onTake(signal)}
                >
                  {renews ? "Use the new one" : "Add"}
                </Button>
                <span>{signal.sentence}</span>
                {renews && <span className="text-slate">{renews}</span>}
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
