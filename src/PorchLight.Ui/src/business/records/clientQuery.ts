import { useState } from "react";
import type { Schemas } from "../../api/problem";

/** Which clients are shown, and how; nothing of it is left out. */
export type ClientQuery = Required<Schemas["ClientQuery"]>;

export const everybody: ClientQuery = {
  words: "",
  standings: [],
  tags: [],
  filters: [],
  columns: [],
  sort: "since",
  descending: true,
};

const keptAs = "porch-light:clients";

/** The query of the list; whoever comes back in the same window finds the list as they left it. */
export function useClientQuery() {
  const [query, setQuery] = useState<ClientQuery>(() => read());
  const set = (next: ClientQuery) => {
    sessionStorage.setItem(keptAs, JSON.stringify(next));
    setQuery(next);
  };
  return [query, set] as const;
}

function read(): ClientQuery {
  try {
    return { ...everybody, ...(JSON.parse(sessionStorage.getItem(keptAs) ?? "{}") as Partial<ClientQuery>) };
  } catch {
    return everybody;
  }
}

/** How many filters are set, beside the words that are searched for. */
export const filtersSet = ({ standings, tags, filters }: ClientQuery) =>
  [standings, tags].filter((one) => one.length > 0).length + filters.length;

/** Whether nothing is filtered away, whatever the order. */
export const isEverybody = (query: ClientQuery) => !query.words.trim() && filtersSet(query) === 0;
