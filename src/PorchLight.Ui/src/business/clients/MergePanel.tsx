import { useState } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link, useNavigate, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { Panel, PanelWaiting, Section } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useTitle } from "../shell/useTitle";
import { standingWords } from "./standings";

/** Two records beside each other: are they one person? Whoever says so sees first what stays and what comes. */
export function MergePanel() {
  const { id = "", other = "" } = useParams();
  useTitle("One person?");
  const navigate = useNavigate();
  const say = useNotice();
  const [taken, setTaken] = useState<string[]>([]);
  const path = { path: { id, other } };
  const merge = useMutation({
    mutationFn: () =>
      orProblem(api.PUT("/api/clients/{id}/beside/{other}/merged", { params: path, body: { take: taken } })),
    onSuccess: (done) => {
      void navigate(`/clients/${id}`);
      say({
        words: "They are one client now.",
        undo: async () => {
          await orProblem(
            api.PUT("/api/clients/merges/{id}/split", { params: { path: { id: done.id! } }, body: { anyway: true } }),
          );
        },
      });
    },
  });
  const put = (areTwo: boolean) =>
    orProblem(api.PUT("/api/clients/{id}/beside/{other}", { params: path, body: { areTwo } }));
  const decide = useMutation({
    mutationFn: () => put(true),
    onSuccess: () => {
      void navigate(`/clients/${id}`);
      say({
        words: "They stay two clients. You will not be asked again.",
        undo: async () => {
          await put(false);
        },
      });
    },
  });
  const query = useQuery({
    ...ask(["beside", id, other], () => api.GET("/api/clients/{id}/beside/{other}", { params: path })),
    // Once they are one there are no two beside each other to ask for.
    enabled: !merge.isPending && !merge.isSuccess,
  });
  const both = query.data;
  if (!both) return <PanelWaiting title="One person?" home="/clients" error={query.error} />;
  const { kept, other: goes } = both;
  return (
    <Panel
      key={`${id} ${other}`}
      title="One person?"
      home="/clients"
      under={`If they are, everything of ${goes.name} moves into the record of ${kept.name}. You can split them again.`}
    >
      <div className="grid gap-4 @2xl/panel:grid-cols-2">
        <InShort title="Stays" client={kept} />
        <InShort title="Merged into it" client={goes} />
      </div>
      <Link className={`${buttonLook("quiet")} mt-1 -ml-3`} to={`/clients/${other}/beside/${id}`} replace>
        Swap them
      </Link>
      {both.differ.length > 0 && (
        <Section title="Where they differ, choose what to keep">
          <ul className="grid gap-3">
            {both.differ.map(({ field, label, kept: ours, other: theirs }) => (
              <li key={field}>
                <fieldset className="grid gap-x-4 gap-y-1 @2xl/panel:grid-cols-2">
                  <legend className="mb-0.5 text-slate">{label}</legend>
                  {[ours, theirs].map((words, index) => {
                    const fromOther = index === 1;
                    return (
                      <label key={index} className="flex items-start gap-2 rounded-soft border border-edge px-3 py-2">
                        <input
                          type="radio"
                          name={field}
                          className="mt-1 accent-dusk"
                          checked={taken.includes(field) === fromOther}
                          onChange={() =>
                            setTaken(fromOther ? [...taken, field] : taken.filter((one) => one !== field))
                          }
                        />
                        <span className="min-w-0 wrap-anywhere whitespace-pre-wrap">{words}</span>
                      </label>
                    );
                  })}
                </fieldset>
              </li>
            ))}
          </ul>
          <p className="mt-2 text-slate">What you do not choose stays in the field’s history.</p>
        </Section>
      )}
      {both.fills.length > 0 && (
        <Section title={`New from ${goes.name}`}>
          <dl className="grid grid-cols-[minmax(0,2fr)_minmax(0,5fr)] gap-x-4 gap-y-1">
            {both.fills.map(({ label, words }) => (
              <div key={label} className="contents">
                <dt className="text-slate">{label}</dt>
                <dd className="wrap-anywhere whitespace-pre-wrap">{words}</dd>
              </div>
            ))}
          </dl>
        </Section>
      )}
      <Failure error={merge.error ?? decide.error} />
      <p className="mt-6 flex flex-wrap gap-2">
        <Button weight="main" disabled={merge.isPending} onClick={() => merge.mutate()}>
          They are one person
        </Button>
        <Button disabled={decide.isPending} onClick={() => decide.mutate()}>
          They are two people
        </Button>
      </p>
    </Panel>
  );
}

function InShort({ title, client }: { title: string; client: Schemas["ClientInShort"] }) {
  const count = (number: number, one: string) =>
    number === 1 ? `one ${one}` : `${number === 0 ? "no" : number} ${one}s`;
  return (
    <section className="rounded-soft border border-line p-4">
      <h2 className="text-note text-slate">{title}</h2>
      <p className="text-section font-semibold">{client.name}</p>
      {client.email && <p className="wrap-anywhere">{client.email}</p>}
      <p className="text-slate">
        {standingWords[client.standing]}, with us since {client.since}, with {count(client.projects, "project")} and{" "}
        {count(client.notes, "note")}.
      </p>
    </section>
  );
}
