import { Page } from "../../kit/Page";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link, useNavigate, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { buttonLook } from "../../kit/Button";
import { AskFirst } from "../../kit/AskFirst";
import { newKey } from "../../kit/newKey";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useTitle } from "../shell/useTitle";
import { ImportPlan } from "./ImportPlan";

type Import = Schemas["ImportView"];

const count = (number: number) => number.toLocaleString("en");
const people = (number: number) => (number === 1 ? "one person" : `${count(number)} people`);

/** People from a file of another program: chosen, looked at, brought in, and taken back if need be. */
export function ImportClients() {
  const { id } = useParams();
  useTitle("Import clients");
  return (
    <Page title="Import clients from a file">
      <p className="mb-5 text-slate">
        From an address book or another program: a table (CSV) with names above its columns, or contacts (vCard). You
        see what would happen before anything does, and can take a whole import back.
      </p>
      {id ? <OneImport key={id} id={id} /> : <Choose />}
    </Page>
  );
}

function Choose() {
  const navigate = useNavigate();
  const take = useMutation({
    mutationFn: (file: File) =>
      orProblem(
        api.PUT("/api/clients/imports/{id}", {
          params: { path: { id: newKey() }, query: { name: file.name } },
          body: file as never,
          bodySerializer: (body) => body as BodyInit,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      ),
    onSuccess: (taken) => navigate(`/clients/import/${taken.id}`),
  });
  const earlier = useQuery(ask(["imports"], () => api.GET("/api/clients/imports")));
  return (
    <>
      <label className={`${buttonLook("main")} cursor-pointer focus-within:outline-2 focus-within:outline-offset-2`}>
        {take.isPending ? "Reading the file …" : "Choose a file"}
        <input
          type="file"
          accept=".csv,.txt,.tsv,.vcf,text/csv,text/vcard"
          className="sr-only"
          disabled={take.isPending}
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = "";
            if (file) take.mutate(file);
          }}
        />
      </label>
      <Link to="/clients" className={`${buttonLook("quiet")} ml-2`}>
        Back to the clients
      </Link>
      <Failure error={take.error ?? earlier.error} />
      {!!earlier.data?.length && (
        <section className="mt-8">
          <h2 className="mb-2 text-section">Earlier imports</h2>
          <ul className="grid gap-1">
            {earlier.data.map((one) => (
              <li key={one.id}>
                <Link className="underline" to={`/clients/import/${one.id}`}>
                  {one.fileName}
                </Link>
                , {one.at}, by {one.by}: {one.state === "takenBack" ? "taken back" : people(one.made)}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

function OneImport({ id }: { id: string }) {
  const query = useQuery({
    ...ask(["import", id], () => api.GET("/api/clients/imports/{id}", { params: { path: { id } } })),
    refetchInterval: ({ state }) =>
      state.data?.state === "running" || state.data?.state === "takingBack" ? 1000 : false,
  });
  if (!query.data) return query.error ? <Failure error={query.error} /> : <Skeleton rows={6} />;
  return query.data.state === "looked" ? <ImportPlan import={query.data} /> : <Under import={query.data} />;
}

/** An import that was begun: how far it is, and what it brought. */
function Under({ import: one }: { import: Import }) {
  const takeBack = useMutation({
    mutationFn: () => orProblem(api.PUT("/api/clients/imports/{id}/taken-back", { params: { path: { id: one.id! } } })),
  });
  return (
    <section className="rounded-soft border border-line bg-card p-5" aria-live="polite">
      <h2 className="mb-2 text-section">{one.fileName}</h2>
      {one.state === "running" && (
        <>
          <p>
            {count(one.workedThrough)} of {count(one.lines)} lines are done. You can go on with something else
            meanwhile.
          </p>
          <progress
            className="mt-2 h-2.5 w-full appearance-none overflow-hidden rounded-soft bg-line [&::-moz-progress-bar]:bg-dusk [&::-webkit-progress-bar]:bg-line [&::-webkit-progress-value]:bg-dusk"
            value={one.workedThrough}
            max={one.lines}
            aria-label="How far the import is"
          />
        </>
      )}
      {one.state === "takingBack" && <p>Undoing …</p>}
      {one.state === "takenBack" && (
        <p>
          Taken back.
          {one.stayed > 0 &&
            ` ${one.stayed === 1 ? "One client stayed" : `${count(one.stayed)} clients stayed`}, because something has happened with them since.`}
        </p>
      )}
      {one.state === "done" && (
        <>
          <p>
            {one.made === 0
              ? "Nobody is new."
              : one.made === 1
                ? "One client was added."
                : `${count(one.made)} clients were added.`}{" "}
            {one.filled > 0 &&
              (one.filled === 1
                ? "One existing client was updated. "
                : `${count(one.filled)} existing clients were updated. `)}
            {one.leftOut > 0 &&
              (one.leftOut === 1 ? "One line was left out." : `${count(one.leftOut)} lines were left out.`)}
          </p>
          <p className="mt-4 flex flex-wrap items-center gap-2">
            <Link to="/clients" className={buttonLook("main")}>
              Look at the clients
            </Link>
            <AskFirst
              words="Undo the whole import"
              question="Everything this file added is removed. Clients with anything new since then stay."
              act="Take it back"
              keep="Leave it"
              busy={takeBack.isPending}
              onAct={() => takeBack.mutate()}
            />
          </p>
        </>
      )}
      <Failure error={takeBack.error} />
      {one.state === "takenBack" && (
        <p className="mt-4">
          <Link to="/clients/import" className={buttonLook("plain")}>
            Choose a file
          </Link>
        </p>
      )}
    </section>
  );
}
