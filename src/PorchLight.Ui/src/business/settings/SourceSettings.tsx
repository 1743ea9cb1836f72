import { useState } from "react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { controlLook } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { say } from "../shell/say";

type Row = Schemas["SourceRow"];

/** How people found the business: what counts to which source of its list, and what counts to none yet. */
export function SourceSettings() {
  const queries = useQueryClient();
  const notice = useNotice();
  const sources = useQuery(ask(["sources"], () => api.GET("/api/settings/sources")));
  const merge = useMutation({
    mutationFn: (body: Schemas["SourceMerge"]) => orProblem(api.PUT("/api/settings/sources", { body })),
    onSuccess: (rows, { written, into }) => {
      queries.setQueryData(["sources"], rows);
      const name = rows.find((row) => row.key === into)?.name;
      notice({ words: name ? `“${written}” counts to “${name}” now.` : `“${written}” is a source of its own now.` });
    },
  });
  if (!sources.data) return sources.error ? <Failure error={sources.error} /> : <Skeleton rows={6} />;
  const listed = sources.data.filter((row) => row.key);
  const loose = sources.data.filter((row) => !row.key);
  return (
    <div className="grid gap-6">
      <section aria-label="What came through each" className="rounded-soft bg-card p-6 shadow-soft">
        <h2 className="mb-1 text-lead">What came through each</h2>
        <p className="mb-3 text-slate">
          Rename a source and everything counted under the old name stays counted. To merge two, choose which one counts
          to the other.
        </p>
        {listed.length === 0 && <p>No source is listed yet.</p>}
        <ul className="grid gap-3">
          {listed.map((row) => (
            <li
              key={row.key}
              className="grid grid-cols-1 items-start gap-x-4 gap-y-1 sm:grid-cols-[minmax(0,1fr)_auto]"
            >
              <span>
                <strong>{row.name}</strong>, {say(row.inquiries, "inquiry", "inquiries")}
                {row.isReferral && ". A person sent them, so you are reminded to thank them"}.
                {row.alsoWritten.length > 0 && (
                  <span className="block text-slate">Also written: {row.alsoWritten.join(", ")}</span>
                )}
              </span>
              <Into row={row} listed={listed} isBusy={merge.isPending} onMerge={merge.mutate} />
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="What else was written" className="rounded-soft bg-card p-6 shadow-soft">
        <h2 className="mb-1 text-lead">What else was written</h2>
        <p className="mb-3 text-slate">
          {loose.length === 0
            ? "Everything people wrote, and every link they came by, counts to one of your sources."
            : "People wrote it in their own words, or a link said it. The records keep it as it was written."}
        </p>
        <ul className="grid gap-3">
          {loose.map((row) => (
            <li
              key={row.name}
              className="grid grid-cols-1 items-start gap-x-4 gap-y-1 sm:grid-cols-[minmax(0,1fr)_auto]"
            >
              <span className="wrap-anywhere">
                <strong>{row.name}</strong>, {say(row.inquiries, "inquiry", "inquiries")}.
              </span>
              <Into row={row} listed={listed} isBusy={merge.isPending} onMerge={merge.mutate} />
            </li>
          ))}
        </ul>
        <Failure error={merge.error} />
      </section>
    </div>
  );
}

interface IntoProps {
  row: Row;
  listed: Row[];
  isBusy: boolean;
  onMerge: (merge: Schemas["SourceMerge"]) => void;
}

/** Says what a source, or what was written, counts to. */
function Into({ row, listed, isBusy, onMerge }: IntoProps) {
  const [into, setInto] = useState("");
  const others = listed.filter((one) => one.key !== row.key);
  return (
    <span className="flex flex-wrap gap-2">
      {others.length > 0 && (
        <>
          <select
            aria-label={`What “${row.name}” counts to`}
            className={`${controlLook} w-56 max-w-full`}
            value={into}
            onChange={(e) => setInto(e.target.value)}
          >
            <option value="">counts to …</option>
            {others.map((one) => (
              <option key={one.key} value={one.key!}>
                {one.name}
              </option>
            ))}
          </select>
          {into && (
            <Button disabled={isBusy} onClick={() => onMerge({ written: row.name, into })}>
              Merge
            </Button>
          )}
        </>
      )}
      {!row.key && !into && (
        <Button disabled={isBusy} onClick={() => onMerge({ written: row.name, into: null })}>
          Add it to your sources
        </Button>
      )}
    </span>
  );
}
