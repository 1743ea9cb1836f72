import type { Schemas } from "../api/problem";

/** How inquiries are sorted, the best first, in words. */
export const fits: [Schemas["Fit"], string][] = [
  ["comeIn", "Come in"],
  ["talkFirst", "Talk first"],
  ["notNow", "Not now"],
];
