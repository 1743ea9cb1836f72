import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";

type Row = Schemas["UnfinishedFormRow"];

/** Half-finished forms of people who left an address. */
export function UnfinishedForms() {
  const left = useQuery(ask(["unfinished-forms"], () => api.GET("/api/unfinished-forms")));
  if (left.error) return <Failure error={left.error} />;
  if (!left.data || left.data.length === 0) return null;
  return (
    <section aria-label="Unfinished forms" className="mb-6">
      <h2 className="mb-1 text-section">Unfinished forms, {left.data.length}</h2>
      <p className="mb-2 text-slate">They started a form and left an address, but have not sent it.</p>
      <ul className="overflow-hidden rounded-soft bg-card shadow-soft">
        {left.data.map((row) => (
          <UnfinishedFormLine key={row.id} row={row} />
        ))}
      </ul>
    </section>
  );
}

function UnfinishedFormLine({ row }: { row: Row }) {
  const say = useNotice();
  const write = useMutation({
    mutationFn: () =>
      orProblem(
        api.POST("/api/unfinished-forms/{id}/follow-up", {
          params: { path: { id: row.id } },
        }),
      ),
    onSuccess: ({ takeBackSeconds }) => {
      say(
        takeBackSeconds
          ? {
              words: `A reminder goes to ${row.name} in ${takeBackSeconds} seconds.`,
              undo: () =>
                orProblem(api.POST("/api/unfinished-forms/{id}/take-back", { params: { path: { id: row.id } } })),
            }
          : { words: `A reminder was sent to ${row.name}.` },
      );
    },
  });
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-4 py-2.5 last:border-0">
      <span className="min-w-48 flex-1">
        <strong className="block">{row.name}</strong>
        <span className="block text-note text-slate">
          “{row.form}”, left {row.left}, kept until {row.until}
        </span>
      </span>
      <span className="min-w-48 flex-1">{row.fit && `Fit so far: ${row.fit}`}</span>
      {row.canFollowUp ? (
        <Button disabled={write.isPending} onClick={() => write.mutate()}>
          Send one reminder
        </Button>
      ) : (
        <span className="text-slate">
          {row.followedUp ? `written to ${row.followedUp}` : "they were not told you may write"}
        </span>
      )}
      <Failure error={write.error} />
    </li>
  );
}
