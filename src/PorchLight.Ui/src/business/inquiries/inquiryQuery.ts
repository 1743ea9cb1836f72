import { useState } from "react";
import type { Schemas } from "../../api/problem";

/** Which inquiries are shown, and how; nothing of it is left out. */
export type InquiryQuery = Required<Schemas["InquiryQuery"]>;

export const everything: InquiryQuery = {
  words: "",
  needs: [],
  fits: [],
  forms: [],
  stages: [],
  services: [],
  sources: [],
  lookedAfterBy: [],
  unassigned: false,
  flagged: false,
  order: "need",
  backwards: false,
};

const keptAs = "porch-light:inquiries";

/** The query of the list; whoever comes back in the same window finds the list as they left it. */
export function useInquiryQuery() {
  const [query, setQuery] = useState<InquiryQuery>(() => read());
  const set = (next: InquiryQuery) => {
    sessionStorage.setItem(keptAs, JSON.stringify(next));
    setQuery(next);
  };
  return [query, set] as const;
}

function read(): InquiryQuery {
  try {
    return { ...everything, ...(JSON.parse(sessionStorage.getItem(keptAs) ?? "{}") as Partial<InquiryQuery>) };
  } catch {
    return everything;
  }
}

/** How many filters are set, beside the words that are searched for. */
export const filtersSet = ({ words: _, order: __, backwards: ___, ...filters }: InquiryQuery) =>
  Object.values(filters).filter((one) => (Array.isArray(one) ? one.length > 0 : one)).length;

/** Whether nothing is filtered away, whatever the order. */
export const isEverything = (query: InquiryQuery) => !query.words.trim() && filtersSet(query) === 0;
