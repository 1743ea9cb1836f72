// Reads vCards from the input with a library that knows nothing of ours, for the tests.
import { readFileSync } from "node:fs";
import ICAL from "ical.js";

const parsed = ICAL.parse(readFileSync(0, "utf8"));
const cards = (typeof parsed[0] === "string" ? [parsed] : parsed).map((one) => {
  const card = new ICAL.Component(one);
  const first = (name) => card.getFirstPropertyValue(name);
  const text = (name) => (first(name) === null ? "" : String(first(name)));
  return {
    fn: text("fn"),
    n: first("n") ?? [],
    email: text("email"),
    tel: text("tel").replace(/^tel:/, ""),
    org: text("org"),
    adr: first("adr") ?? [],
    bday: text("bday"),
    note: text("note"),
    url: text("url"),
    categories: card.getFirstProperty("categories")?.getValues() ?? [],
  };
});
process.stdout.write(JSON.stringify(cards));
