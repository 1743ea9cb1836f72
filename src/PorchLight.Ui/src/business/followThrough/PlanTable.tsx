import { useState, type ChangeEvent } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { askOnce } from "../../api/ask";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { boxLook, controlLook } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { say } from "../shell/say";
import type { Edited, View } from "./useFollowThrough";

type Line = Schemas["PlanLine"];

const empty: Line = { key: "", day: "", step: "", who: "you, by a nod", sees: "", stillToWrite: "", endsIf: "" };

/** The same as a table, to plan it on paper first: changed in place, saved as a file and read back. */
export function PlanTable({ edited, view }: { edited: Edited; view: View }) {
  const path = { id: edited.id };
  const table = useQuery(
    askOnce(["plan-table", edited.id], () => api.GET("/api/follow-throughs/{id}/plan-table", { params: { path } })),
  );
  if (!table.data) return table.error ? <Failure error={table.error} /> : <Skeleton />;
  return <Table edited={edited} view={view} table={table.data} />;
}

interface Kept {
  /** The lines as they were when somebody began to change them. */
  was: Line[];
  now: Line[];
}

/** What is changed in the table and not saved yet: kept in this window, whatever is looked at meanwhile. */
function useKept(id: string) {
  const name = `porch-light:plan-table:${id}`;
  const [kept, setKept] = useState<Kept | null>(
    () => JSON.parse(sessionStorage.getItem(name) ?? "null") as Kept | null,
  );
  const keep = (next: Kept | null) => {
    setKept(next);
    if (next) sessionStorage.setItem(name, JSON.stringify(next));
    else sessionStorage.removeItem(name);
  };
  return [kept, keep] as const;
}

function Table({ edited, view, table }: { edited: Edited; view: View; table: Schemas["PlanTableView"] }) {
  const notice = useNotice();
  const [kept, keep] = useKept(edited.id);
  const path = { id: edited.id };
  const lines = kept?.now ?? table.lines;
  const setLines = (now: Line[]) => keep({ was: kept?.was ?? table.lines, now });
  const save = useMutation({
    mutationFn: async (file: File | null) => {
      if (kept)
        edited.taken(
          await orProblem(api.PUT("/api/follow-throughs/{id}/plan-table", { params: { path }, body: kept })),
        );
      keep(null);
      if (!file) return;
      const text = await file.text();
      edited.taken(
        await orProblem(
          api.PUT("/api/follow-throughs/{id}/plan-table/table.csv", { params: { path }, body: { text } }),
        ),
      );
    },
    onSuccess: (_, file) =>
      notice({
        words: file
          ? "The file is read. Look at what it changes before you put it into force."
          : "The table is saved. It is not in force yet.",
      }),
  });
  const choose = (event: ChangeEvent<HTMLInputElement>) => {
    const file = event.target.files?.[0];
    if (file) save.mutate(file);
    event.target.value = "";
  };
  const set = (index: number, part: Partial<Line>) =>
    setLines(lines.map((line, at) => (at === index ? { ...line, ...part } : line)));
  const wrong = findingsOf(save.error);
  return (
    <div className="overflow-x-auto pb-6 lg:min-h-0 lg:flex-1 lg:overflow-auto">
      <div className="mb-2 flex flex-wrap items-center gap-2 print:hidden">
        <span className="mr-2">
          {table.stillToWrite === 0 ? "Everything is written." : `${say(table.stillToWrite, "step")} still to write.`}
        </span>
        <a href={`/api/follow-throughs/${edited.id}/plan-table/table.csv`} download className={buttonLook("plain")}>
          Save as CSV
        </a>
        <label className={`${buttonLook("plain")} cursor-pointer focus-within:outline-2`}>
          Import a CSV
          <input type="file" accept=".csv,text/csv" className="sr-only" onChange={choose} />
        </label>
        <Button onClick={() => print()}>Print</Button>
      </div>
      <Failure error={save.error} />
      <table className="w-full min-w-[52rem] border-collapse bg-card text-left shadow-soft">
        <caption className="sr-only">{view.content.name}</caption>
        <thead>
          <tr className="border-b border-edge">
            {["Day", "Step", "Who acts", "What the client sees", "Still to write", "Ends if"].map((heading) => (
              <th key={heading} scope="col" className="px-3 py-2">
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.map((line, index) => (
            <tr key={line.key || `new ${index}`} className="border-b border-line align-top last:border-0">
              <td className="px-3 py-1.5">
                <input
                  aria-label={`Day of line ${index + 1}`}
                  inputMode="numeric"
                  className={`${controlLook} w-16 tabular-nums`}
                  aria-invalid={wrong.has(String(index + 1)) || undefined}
                  value={line.day}
                  onChange={(e) => set(index, { day: e.target.value })}
                />
              </td>
              <td className="px-3 py-1.5">
                <input
                  aria-label={`Step of line ${index + 1}`}
                  className={boxLook}
                  value={line.step}
                  onChange={(e) => set(index, { step: e.target.value })}
                />
                {wrong.get(String(index + 1)) && (
                  <span className="block font-semibold text-brick">{wrong.get(String(index + 1))}</span>
                )}
              </td>
              <td className="px-3 py-1.5">
                {line.who === "they" ? (
                  "they"
                ) : (
                  <select
                    aria-label={`Who acts in line ${index + 1}`}
                    className={`${controlLook} w-auto`}
                    value={line.who}
                    onChange={(e) => set(index, { who: e.target.value })}
                  >
                    <option value="by itself">by itself</option>
                    <option value="you, by a nod">you, by a nod</option>
                  </select>
                )}
              </td>
              <td className="px-3 py-1.5">
                {line.key === "" || line.stillToWrite === line.sees ? (
                  <input
                    aria-label={`What the client sees in line ${index + 1}`}
                    className={boxLook}
                    value={line.sees}
                    onChange={(e) => set(index, { sees: e.target.value, stillToWrite: e.target.value })}
                  />
                ) : (
                  line.sees
                )}
              </td>
              <td className="px-3 py-1.5">{line.stillToWrite}</td>
              <td className="px-3 py-1.5 text-slate">{line.endsIf}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-3 flex gap-2 print:hidden">
        <Button onClick={() => setLines([...lines, empty])}>Add a step</Button>
        {kept && (
          <>
            <Button weight="main" disabled={save.isPending} onClick={() => save.mutate(null)}>
              Save the table
            </Button>
            <Button weight="quiet" onClick={() => keep(null)}>
              Discard changes
            </Button>
          </>
        )}
      </div>
    </div>
  );
}
