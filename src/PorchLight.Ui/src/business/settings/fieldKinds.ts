import type { Schemas } from "../../api/problem";

export const kindWords: Record<Schemas["FieldKind"], string> = {
  text: "A line of text",
  longText: "Several lines",
  email: "An e-mail address",
  phone: "A phone number",
  webAddress: "A web address",
  number: "A number",
  money: "An amount of money",
  date: "A day",
  yesNo: "Yes or no",
  oneOf: "One of several words",
  severalOf: "Several of some words",
  address: "An address",
  personName: "A person",
  files: "Files",
  rows: "Rows with columns",
};

export const kinds = Object.keys(kindWords) as Schemas["FieldKind"][];

/** What a column of rows can keep. */
export const columnKinds = kinds.filter((kind) => kind !== "files" && kind !== "rows");
