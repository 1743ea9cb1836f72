import { Page } from "../../kit/Page";
import { useState } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { controlLook } from "../../kit/fields";
import { LightMark } from "../../kit/marks";
import { useNotice } from "../../kit/Notice";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { say } from "../shell/say";
import { useTitle } from "../shell/useTitle";
import { FormMenu } from "./FormMenu";

type Row = Schemas["FormRow"];

const orders: Record<string, { words: string; compare: (a: Row, b: Row) => number }> = {
  made: { words: "Sort by when they were made", compare: () => 0 },
  title: { words: "Sort by title", compare: (a, b) => a.title.localeCompare(b.title) },
  answers: { words: "Sort by number of answers", compare: (a, b) => b.answers - a.answers },
  last: {
    words: "Sort by last answer",
    compare: (a, b) => (b.lastAnswerAt ?? "").localeCompare(a.lastAnswerAt ?? ""),
  },
  service: { words: "Sort by service", compare: (a, b) => (a.service ?? "~").localeCompare(b.service ?? "~") },
};

export function FormList() {
  useTitle("Forms");
  const notice = useNotice();
  const [sought, setSought] = useState("");
  const [order, setOrder] = useState("made");
  const [archived, setArchived] = useState(false);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const list = useQuery(ask(["forms"], () => api.GET("/api/forms")));
  const lights = useMutation({
    mutationFn: (body: Schemas["Lights"]) => orProblem(api.PUT("/api/forms/lights", { body })),
  });
  const archive = useMutation({
    mutationFn: (body: Schemas["Archive"]) => orProblem(api.PUT("/api/forms/archive", { body })),
    onSuccess: async (_, body) => {
      setChosen(new Set());
      notice({
        words: body.archived ? "Put away, with the light off." : "Back among your forms, with the light off.",
        undo: () => archive.mutateAsync({ ...body, archived: !body.archived }),
      });
    },
  });

  const rows = (list.data ?? [])
    .filter((row) => row.archived === archived)
    .filter((row) => `${row.title} ${row.service ?? ""}`.toLowerCase().includes(sought.trim().toLowerCase()))
    .sort(orders[order]!.compare);
  const put = list.data?.filter((row) => row.archived).length ?? 0;
  const ids = rows.filter((row) => chosen.has(row.id)).map((row) => row.id);
  const choose = (id: string, on: boolean) =>
    setChosen((before) => {
      const next = new Set(before);
      if (on) next.add(id);
      else next.delete(id);
      return next;
    });
  return (
    <Page
      title="Forms"
      filters={
        <>
          {" "}
          <input
            type="search"
            aria-label="Find a form"
            placeholder="Find by title or service"
            className={`${controlLook} w-60`}
            value={sought}
            onChange={(e) => setSought(e.target.value)}
          />
          <select
            aria-label="In which order"
            className={`${controlLook} w-auto`}
            value={order}
            onChange={(e) => setOrder(e.target.value)}
          >
            {Object.entries(orders).map(([key, { words }]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </select>
          {(put > 0 || archived) && (
            <Button weight="quiet" onClick={() => setArchived(!archived)}>
              {archived ? "Back to the others" : `${put} put away`}
            </Button>
          )}
        </>
      }
      actions={
        <>
          {" "}
          <Link to="/files" className={buttonLook("quiet")}>
            Files and lists
          </Link>
          <Link to="/forms/new" className={buttonLook("main")}>
            A new form
          </Link>
        </>
      }
    >
      <Failure error={list.error ?? lights.error ?? archive.error} />
      {ids.length > 0 && (
        <div role="group" aria-label="What is chosen" className="mb-3 flex flex-wrap items-center gap-2">
          <span>{say(ids.length, "form")} chosen:</span>
          {archived ? (
            <Button onClick={() => archive.mutate({ forms: ids, archived: false })}>Bring back</Button>
          ) : (
            <>
              <Button onClick={() => lights.mutate({ forms: ids, on: true })}>Turn the light on</Button>
              <Button onClick={() => lights.mutate({ forms: ids, on: false })}>Turn the light off</Button>
              <Button onClick={() => archive.mutate({ forms: ids, archived: true })}>Put away</Button>
            </>
          )}
        </div>
      )}
      {list.isPending && <Skeleton />}
      {list.data?.length === 0 && (
        <Empty>There is no form yet. Make the first one: from a ready one it takes a minute.</Empty>
      )}
      {list.data && list.data.length > 0 && rows.length === 0 && (
        <Empty>{sought ? "No form has these words in its title." : "Nothing has been put away."}</Empty>
      )}
      {rows.length > 0 && (
        <ul className="rounded-soft bg-card shadow-soft">
          {rows.map((row) => (
            <FormLine
              key={row.id}
              row={row}
              chosen={chosen.has(row.id)}
              onChoose={(on) => choose(row.id, on)}
              onArchive={() => archive.mutate({ forms: [row.id], archived: !row.archived })}
            />
          ))}
        </ul>
      )}
    </Page>
  );
}

interface LineProps {
  row: Row;
  chosen: boolean;
  onChoose: (on: boolean) => void;
  onArchive: () => void;
}

function FormLine({ row, chosen, onChoose, onArchive }: LineProps) {
  return (
    <li className="flex items-center gap-3 border-b border-line px-4 last:border-0 hover:bg-mist/70">
      <input
        type="checkbox"
        aria-label={`Choose ${row.title}`}
        className="size-[1.15rem] shrink-0 accent-dusk"
        checked={chosen}
        onChange={(e) => onChoose(e.target.checked)}
      />
      <Link
        to={`/forms/${row.id}`}
        className="flex min-h-11 min-w-0 flex-1 flex-wrap items-center gap-x-5 gap-y-1 py-2 -outline-offset-2"
      >
        <span className="inline-flex w-32 items-center gap-2">
          <LightMark lit={row.shines} /> {row.shines ? "Light is on" : "Light is off"}
        </span>
        <strong className="min-w-48 flex-1">{row.title || "A form without a title"}</strong>
        <span className="w-40">{row.service}</span>
        <span className="w-24 tabular-nums">{say(row.answers, "answer")}</span>
        <span className="w-40 text-slate">{row.lastAnswer ? `last ${row.lastAnswer}` : "none yet"}</span>
        <span className="w-36 text-slate">
          {row.version === 0 ? "not published yet" : `version ${row.version}`}
          {row.version > 0 && row.unpublishedChanges && ", changed since"}
        </span>
      </Link>
      <FormMenu row={row} onArchive={onArchive} />
    </li>
  );
}
