import type { Schemas } from "../../api/problem";
import { useListState } from "../lists/useListState";

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

/** What the list shows, as it stands in its address. */
export const useClientQuery = () => useListState("/clients", everybody);

/** How many filters are set, beside the words that are searched for. */
export const filtersSet = ({ standings, tags, filters }: ClientQuery) =>
  [standings, tags].filter((one) => one.length > 0).length + filters.length;

/** Whether nothing is filtered away, whatever the order. */
export const isEverybody = (query: ClientQuery) => !query.words.trim() && filtersSet(query) === 0;
