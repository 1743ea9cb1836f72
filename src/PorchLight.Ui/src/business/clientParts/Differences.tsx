import { useState, type ReactNode } from "react";
import { useMutation } from "@tanstack/react-query";
import { orProblem, Problem, sentenceOf, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { ValueBox } from "./ValueBox";

type Difference = Schemas["DifferenceOnFile"];
type How = NonNullable<Schemas["Settlement"]>;

const rowWords: Record<Schemas["RowChange"], string> = {
  same: "as it is",
  added: "is new",
  changed: "has changed",
  corrected: "perhaps the same, corrected",
  removed: "was not sent again",
};

/** Answers unlike what is on file, each to be settled by a press, one by one or all at once. */
export function Differences({ differences }: { differences: Difference[] }) {
  const say = useNotice();
  const [writing, setWriting] = useState<string | null>(null);
  const [correcting, setCorrecting] = useState<string | null>(null);
  const open = differences.filter((one) => !one.settlement);
  const settled = differences.filter((one) => one.settlement);
  const takeBack = async (id: string, anyway = false): Promise<void> => {
    await orProblem(api.PUT("/api/differences/{id}/taken-back", { params: { path: { id } }, body: { anyway } }));
  };
  const settle = useMutation({
    mutationFn: (body: Schemas["Settling"][]) => orProblem(api.PUT("/api/differences/settled", { body })),
    onSuccess: (_, body) => {
      setWriting(null);
      say({
        words: body.length === 1 ? "Settled." : `${body.length} settled.`,
        undo: async () => {
          for (const one of body) await takeBack(one.difference);
        },
      });
    },
  });
  const correct = useMutation({
    mutationFn: ({ one, now }: { one: Difference; now: Schemas["Answer"] | null }) =>
      orProblem(
        api.PUT("/api/differences/{id}/corrected", {
          params: { path: { id: one.id } },
          body: { was: one.theirValue, now },
        }),
      ),
    onSuccess: () => {
      setCorrecting(null);
    },
  });
  const put = (chosen: Difference[], how: How, another: Schemas["Answer"] | null = null) =>
    !settle.isPending && settle.mutate(chosen.map((one) => ({ difference: one.id, how, another })));
  return (
    <>
      {open.length > 1 && (
        <p className="mb-3 flex flex-wrap gap-2">
          <Button onClick={() => put(open, "tookTheirs")}>Take all of theirs</Button>
          <Button onClick={() => put(open, "keptOurs")}>Keep all of ours</Button>
        </p>
      )}
      {!writing && <Failure error={settle.error} />}
      <ul className="grid gap-4">
        {open.map((one) => (
          <li key={one.id} className="rounded-soft border border-edge bg-card p-4">
            <p className="font-semibold">{one.label}</p>
            <p className="text-note text-slate">
              {one.asked && `Asked as “${one.asked}”, in `}
              {!one.asked && "In "}
              {one.from}
            </p>
            <div className="mt-2 grid gap-3 sm:grid-cols-2">
              <Side title="On file" words={one.ours} />
              <Side title="They say" words={one.theirs}>
                {one.corrected !== null && (
                  <p className="mt-1 border-t border-line pt-1">
                    <span className="block text-note text-slate">They meant, says {one.correctedBy}</span>
                    <span className="whitespace-pre-wrap wrap-anywhere">{one.corrected}</span>
                  </p>
                )}
              </Side>
            </div>
            {one.rows.length > 0 && (
              <ul className="mt-2 grid gap-1">
                {one.rows.map((row, index) => (
                  <li key={index}>
                    {row.ours ?? row.theirs}: <strong>{rowWords[row.change]}</strong>
                    {row.ours && row.theirs && ` (${row.theirs})`}
                  </li>
                ))}
              </ul>
            )}
            {correcting === one.id && one.field ? (
              <Another
                field={one.field}
                start={one.theirValue}
                action="This is what they meant"
                error={correct.error}
                onDone={(now) => correct.mutate({ one, now })}
                onClose={() => setCorrecting(null)}
              />
            ) : writing === one.id && one.field ? (
              <Another
                field={one.field}
                start={one.theirValue}
                action="Write this"
                error={settle.error}
                onDone={(value) => put([one], "wroteAnother", value)}
                onClose={() => setWriting(null)}
              />
            ) : (
              <p className="mt-3 flex flex-wrap gap-2">
                <Button onClick={() => put([one], "tookTheirs")}>{one.ours === null ? "Add it" : "Take theirs"}</Button>
                <Button onClick={() => put([one], "keptOurs")}>
                  {one.ours === null ? "Leave it out" : "Keep ours"}
                </Button>
                {one.field && (
                  <>
                    <Button weight="quiet" onClick={() => setWriting(one.id)}>
                      Write another
                    </Button>
                    <Button weight="quiet" onClick={() => setCorrecting(one.id)}>
                      Correct what they say
                    </Button>
                    {one.corrected !== null && (
                      <Button
                        weight="quiet"
                        disabled={correct.isPending}
                        onClick={() => correct.mutate({ one, now: null })}
                      >
                        As they said it
                      </Button>
                    )}
                  </>
                )}
              </p>
            )}
          </li>
        ))}
      </ul>
      {settled.length > 0 && (
        <ul className="mt-3 grid gap-1 text-slate">
          {settled.map((one) => (
            <Settled key={one.id} difference={one} onTakeBack={takeBack} />
          ))}
        </ul>
      )}
    </>
  );
}

const settledWords: Record<How, string> = {
  keptOurs: "ours was kept",
  tookTheirs: "theirs was taken",
  wroteAnother: "another was written",
};

function Settled(props: { difference: Difference; onTakeBack: (id: string, anyway?: boolean) => Promise<void> }) {
  const { difference } = props;
  const [asked, setAsked] = useState<string | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const takeBack = (anyway: boolean) =>
    props.onTakeBack(difference.id, anyway).catch((error: unknown) => {
      if (error instanceof Problem && error.status === 409) setAsked(error.message);
      else setFailure(sentenceOf(error));
    });
  return (
    <li>
      {difference.label}: {difference.settlement && settledWords[difference.settlement]} ({difference.settledBy}). They
      said “{difference.theirs}”.{" "}
      {asked ? (
        <span role="alert">
          {asked}{" "}
          <Button weight="quiet" onClick={() => void takeBack(true)}>
            Yes, take it back
          </Button>
          <Button weight="quiet" onClick={() => setAsked(null)}>
            No
          </Button>
        </span>
      ) : (
        <Button weight="quiet" onClick={() => void takeBack(false)}>
          Take it back
        </Button>
      )}
      {failure && <span className="block font-semibold text-brick">{failure}</span>}
    </li>
  );
}

function Side({ title, words, children }: { title: string; words: string | null; children?: ReactNode }) {
  return (
    <div className="rounded-soft bg-mist p-3">
      <p className="text-note text-slate">{title}</p>
      <p className="whitespace-pre-wrap wrap-anywhere">{words ?? <span className="text-slate">nothing yet</span>}</p>
      {children}
    </div>
  );
}

function Another(props: {
  field: Schemas["Field"];
  start: Schemas["Answer"];
  action: string;
  error: unknown;
  onDone: (value: Schemas["Answer"] | null) => void;
  onClose: () => void;
}) {
  const [value, setValue] = useState<Schemas["Answer"] | null>(props.start);
  return (
    <form
      className="mt-3 grid gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        props.onDone(value);
      }}
    >
      <ValueBox field={props.field} value={value} onChange={setValue} invalid={Boolean(props.error)} />
      <Failure error={props.error} />
      <span className="flex gap-2">
        <Button weight="main" type="submit">
          {props.action}
        </Button>
        <Button weight="quiet" onClick={props.onClose}>
          Not now
        </Button>
      </span>
    </form>
  );
}
