import type { ReactNode } from "react";
import type { Schemas } from "../../../api/problem";

/** Where a member is edited elsewhere, pages for instance in the outline, or follows from others. */
export const elsewhere = null;

type Made = "key" | "kind" | "item";
type Fields<T> = T extends unknown ? { [Member in Exclude<keyof T & string, Made>]-?: ReactNode } : never;

interface Props<Name extends keyof Schemas> {
  /** What it is called in the schema of forms. */
  of: Name;
  /** A field for every member there is: one that is added to the schema has to be added here. */
  fields: Fields<Schemas[Name]>;
  /** Members that take half of the line. */
  half?: (keyof Schemas[Name] & string)[];
}

/** Every member of one part of a form, each with its field. */
export function Members<Name extends keyof Schemas>({ of, fields, half = [] }: Props<Name>) {
  return (
    <div className="grid grid-cols-2 items-end gap-x-4 gap-y-3">
      {Object.entries<ReactNode>(fields).map(([member, field]) =>
        field === elsewhere ? null : (
          <div
            key={member}
            data-member={`${of}.${member}`}
            className={half.some((one) => one === member) ? "" : "col-span-2"}
          >
            {field}
          </div>
        ),
      )}
    </div>
  );
}
