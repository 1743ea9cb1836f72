import type { Schemas } from "../../api/problem";
import { useListState } from "../lists/useListState";

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

/** What the list shows, as it stands in its address. */
export const useInquiryQuery = () => useListState("/inquiries", everything);

/** How many filters are set, beside the words that are searched for. */
export const filtersSet = ({ words: _, order: __, backwards: ___, ...filters }: InquiryQuery) =>
  Object.values(filters).filter((one) => (Array.isArray(one) ? one.length > 0 : one)).length;

/** Whether nothing is filtered away, whatever the order. */
export const isEverything = (query: InquiryQuery) => !query.words.trim() && filtersSet(query) === 0;
