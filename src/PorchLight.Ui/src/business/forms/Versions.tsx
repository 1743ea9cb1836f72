import { useState } from "react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { SelectBox } from "../../kit/fields";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { say } from "../shell/say";

const workingCopy = 0;

interface Props {
  form: Schemas["FormView"];
  /** Stores words that are not stored yet. */
  saveNow: () => Promise<unknown>;
  /** The version that became the working copy last; 0 for none. */
  broughtBack: number;
  onBroughtBack: (version: number) => void;
}

/** What was published, what changed between any two, and a way back. */
export function Versions(props: Props) {
  const { form } = props;
  const versions = useQuery(
    ask(["form", form.id, "versions", form.version], () =>
      api.GET("/api/forms/{id}/versions", { params: { path: { id: form.id } } }),
    ),
  );
  if (!versions.data) return versions.error ? <Failure error={versions.error} /> : <Skeleton rows={4} />;
  return (
    <div className="grid items-start gap-6 lg:grid-cols-2">
      <Published {...props} versions={versions.data} />
      {versions.data.length > 0 && <Compared form={form} versions={versions.data} />}
    </div>
  );
}

type WithVersions<T> = T & { versions: Schemas["VersionView"][] };

function Published({ form, versions, saveNow, broughtBack, onBroughtBack }: WithVersions<Props>) {
  const queries = useQueryClient();
  const bringBack = useMutation({
    mutationFn: async (number: number) => {
      await saveNow();
      const { revision } = queries.getQueryData<Schemas["FormView"]>(["form", form.id])!;
      await orProblem(
        api.POST("/api/forms/{id}/versions/{number}/bring-back", {
          params: { path: { id: form.id, number } },
          body: { revision },
        }),
      );
      return number;
    },
    onSuccess: onBroughtBack,
  });
  return (
    <section className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="mb-2 text-section">Versions</h2>
      <p className="mb-3 text-slate">
        Each time you publish, the form gets a new version. Answers stay with the version people saw.
      </p>
      <Failure error={bringBack.error} takesFocus />
      <p role="status" className="text-moss">
        {broughtBack > 0 && `Version ${broughtBack} is your working copy now. Leads see it when you publish.`}
      </p>
      {versions.length === 0 && <p>Nothing is published yet.</p>}
      <ul className="grid gap-3">
        {versions.map((version) => (
          <li key={version.number} className="border-t border-line pt-3">
            <p className="flex flex-wrap items-baseline gap-x-3">
              <strong>Version {version.number}</strong>
              <span className="text-slate">{version.published}</span>
              <span className="text-slate">{say(version.answers, "answer")}</span>
              {(version.number !== form.version || form.unpublishedChanges) && (
                <Button weight="quiet" disabled={bringBack.isPending} onClick={() => bringBack.mutate(version.number)}>
                  Bring version {version.number} back
                </Button>
              )}
            </p>
          </li>
        ))}
      </ul>
      {form.unpublishedChanges && versions.length > 0 && (
        <p className="mt-3 text-slate">
          Your working copy has changes that are not published. They are lost when you bring a version back.
        </p>
      )}
    </section>
  );
}

function Compared({ form, versions }: WithVersions<Pick<Props, "form">>) {
  const newest = form.unpublishedChanges ? workingCopy : form.version;
  const [chosen, setChosen] = useState<{ from?: number; to?: number }>({});
  const to = chosen.to ?? newest;
  const from = chosen.from ?? (form.unpublishedChanges ? form.version : Math.max(1, form.version - 1));
  const differences = useQuery(
    ask(["form", form.id, "differences", from, to, form.revision], () =>
      api.GET("/api/forms/{id}/differences", { params: { path: { id: form.id }, query: { from, to } } }),
    ),
  );
  const choices = (
    <>
      <option value={workingCopy}>Working copy</option>
      {versions.map((version) => (
        <option key={version.number} value={version.number}>
          Version {version.number}
        </option>
      ))}
    </>
  );
  return (
    <section className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="mb-2 text-section">What changed</h2>
      <div className="mb-3 grid gap-3 sm:grid-cols-2">
        <SelectBox label="From" value={from} onChange={(e) => setChosen({ ...chosen, from: Number(e.target.value) })}>
          {choices}
        </SelectBox>
        <SelectBox label="To" value={to} onChange={(e) => setChosen({ ...chosen, to: Number(e.target.value) })}>
          {choices}
        </SelectBox>
      </div>
      <Failure error={differences.error} />
      {differences.isPending && <Skeleton rows={3} />}
      {differences.data?.length === 0 && <p>No changes.</p>}
      <ul className="grid list-disc gap-1 pl-5">
        {differences.data?.map((difference, index) => (
          <li key={index}>{difference.sentence}</li>
        ))}
      </ul>
    </section>
  );
}
