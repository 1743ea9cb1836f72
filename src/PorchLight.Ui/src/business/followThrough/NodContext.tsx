import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { FitMark } from "../../kit/marks";
import { Section, TimelineList } from "../../kit/Panel";
import { api } from "../../api/client";

const mostAnswers = 8;
const mostEvents = 6;

/** What somebody said, and what was said and done before, beside the step that waits for a nod. */
export function NodContext({ inquiry }: { inquiry: string }) {
  const view = useQuery(
    ask(["inquiry", inquiry], () => api.GET("/api/inquiries/{id}", { params: { path: { id: inquiry } } })),
  ).data;
  if (!view) return null;
  const said = view.answers.filter((one) => one.words).slice(0, mostAnswers);
  return (
    <div className="grid gap-x-8 @3xl/panel:grid-cols-2">
      <Section title="What they said">
        {view.fit && (
          <p className="mb-2">
            <FitMark fit={view.fit.fit} />
          </p>
        )}
        <dl className="grid gap-y-1.5">
          {said.map((one) => (
            <div key={one.key} className="grid grid-cols-2 gap-x-3">
              <dt className="text-slate">{one.wording}</dt>
              <dd className="whitespace-pre-wrap wrap-anywhere">{one.words}</dd>
            </div>
          ))}
        </dl>
      </Section>
      <Section title="What happened before">
        <TimelineList entries={view.timeline.slice(0, mostEvents)} />
      </Section>
    </div>
  );
}
