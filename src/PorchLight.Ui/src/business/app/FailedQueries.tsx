import { useSyncExternalStore } from "react";
import { notifyManager, useQueryClient, type Query } from "@tanstack/react-query";
import { Problem } from "../../api/problem";
import { Button } from "../../kit/Button";

/** Whether what a screen shows could not be fetched, for a reason that has nothing to do with what was asked. */
const failed = (query: Query) => {
  const { error } = query.state;
  return error !== null && query.isActive() && !(error instanceof Problem && error.status >= 400 && error.status < 500);
};

/** Says that something on this page could not be fetched, whatever shows it, and fetches it again. */
export function FailedQueries() {
  const queries = useQueryClient();
  const cache = queries.getQueryCache();
  const some = useSyncExternalStore(
    (changed) => cache.subscribe(notifyManager.batchCalls(changed)),
    () => cache.getAll().some(failed),
  );
  const again = () => void queries.refetchQueries({ predicate: failed });
  return some ? (
    <p role="alert" className="flex flex-wrap items-center justify-center gap-3 border-b border-line bg-glow px-6 py-2">
      Some of this page could not be loaded, or may be out of date.
      <Button onClick={again}>Try again</Button>
    </p>
  ) : null;
}
