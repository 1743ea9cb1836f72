import { useState } from "react";
import { useMutation } from "@tanstack/react-query";
import { Link } from "react-router";
import { orProblem, Problem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";

/** Who else a client perhaps is, and whose records went into theirs. */
export function SamePerson({ client }: { client: Schemas["ClientView"] }) {
  return (
    <>
      {client.perhapsSame.map((other) => (
        <section
          key={other.id}
          aria-label={`Perhaps the same as ${other.name}`}
          className="mt-4 flex flex-wrap items-center justify-between gap-3 rounded-soft bg-glow p-4"
        >
          <span>
            Perhaps the same person as <strong>{other.name}</strong>: they have {other.why}.
          </span>
          <Link className={buttonLook("plain")} to={`/clients/${client.id}/beside/${other.id}`}>
            Look at both
          </Link>
        </section>
      ))}
      {client.merges.map((merge) => (
        <MergeLine key={merge.id} merge={merge} />
      ))}
    </>
  );
}

function MergeLine({ merge }: { merge: Schemas["MergedRecord"] }) {
  const say = useNotice();
  const [asked, setAsked] = useState<string | null>(null);
  const split = useMutation({
    mutationFn: (anyway: boolean) =>
      orProblem(api.PUT("/api/clients/merges/{id}/split", { params: { path: { id: merge.id! } }, body: { anyway } })),
    onSuccess: () => {
      say({ words: `${merge.name} is a client of their own again.` });
    },
    onError: (error) => setAsked(error instanceof Problem && error.status === 409 ? error.message : null),
  });
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-3 text-slate">
      <span>
        Made one with the records of {merge.name} by {merge.by}, {merge.at}.
      </span>
      <Button weight="quiet" className="-ml-3" disabled={split.isPending} onClick={() => split.mutate(false)}>
        Split them again
      </Button>
      {asked ? (
        <span role="alert" className="flex w-full flex-wrap items-center gap-3 text-ink">
          {asked}
          <Button onClick={() => split.mutate(true)}>Split anyway</Button>
          <Button weight="quiet" onClick={() => setAsked(null)}>
            Leave it
          </Button>
        </span>
      ) : (
        <Failure error={split.error} />
      )}
    </div>
  );
}
