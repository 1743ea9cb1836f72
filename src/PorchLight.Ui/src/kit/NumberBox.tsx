import { controlLook } from "./fields";
import { TypedInput, type TypedProps } from "./TypedInput";

interface Props extends TypedProps<number> {
  whole?: boolean;
}

const read = (typed: string): number | null => {
  const text = typed.replace(/\s/g, "").replace(",", ".");
  const number = Number(text);
  return text === "" || Number.isNaN(number) ? null : number;
};
const readWhole = (typed: string) => {
  const number = read(typed);
  return number === null ? null : Math.trunc(number);
};
const wrong = (typed: string) => `“${typed}” is not a number. Write a number alone.`;

/** A box for a number. */
export const NumberBox = ({ whole = false, className = "w-28", ...rest }: Props) => (
  <TypedInput
    inputMode={whole ? "numeric" : "decimal"}
    className={`${controlLook} ${className} tabular-nums`}
    read={whole ? readWhole : read}
    say={String}
    wrong={wrong}
    {...rest}
  />
);
