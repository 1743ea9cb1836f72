import type { Schemas } from "../../api/problem";

export const standingWords: Record<Schemas["Standing"], string> = {
  lead: "Lead",
  active: "Active",
  past: "Past",
  archived: "Archived",
};

export const standings = Object.keys(standingWords) as Schemas["Standing"][];
