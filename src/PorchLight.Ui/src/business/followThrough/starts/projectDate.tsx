import { DayFields } from "./DayFields";
import type { FieldsProps, StartKind } from "./startKind";

const Fields = ({ start, choices, onChange }: FieldsProps<"projectDate">) => (
  <DayFields
    start={start}
    dates={choices.dates}
    help="For every project with this date, except lost ones."
    onChange={onChange}
  />
);

export const projectDate: StartKind<"projectDate"> = {
  label: "a day of a project comes",
  begin: (choices) => ({ kind: "projectDate", field: choices.dates[0]?.key ?? "", days: -7 }),
  Fields,
};
