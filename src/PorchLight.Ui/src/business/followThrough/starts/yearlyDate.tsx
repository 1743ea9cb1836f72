import { DayFields } from "./DayFields";
import type { FieldsProps, StartKind } from "./startKind";

const Fields = ({ start, choices, onChange }: FieldsProps<"yearlyDate">) => (
  <DayFields
    start={start}
    dates={choices.personDates}
    help="For every client with this date, except archived ones; for the first time a year after the date itself."
    onChange={onChange}
  />
);

export const yearlyDate: StartKind<"yearlyDate"> = {
  label: "a day of a person comes, each year",
  begin: (choices) => ({ kind: "yearlyDate", field: choices.personDates[0]?.key ?? "", days: 0 }),
  Fields,
};
