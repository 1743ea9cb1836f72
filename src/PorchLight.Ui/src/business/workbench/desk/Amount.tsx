import { Labelled } from "../../../kit/fields";
import { NumberBox } from "../../../kit/NumberBox";

/** A number with its label; nothing typed means any. */
export function Amount(props: {
  label: string;
  value: number | null | undefined;
  whole?: boolean;
  onChange: (value: number | null) => void;
}) {
  return (
    <Labelled label={props.label}>
      <NumberBox
        className="w-full"
        placeholder="any"
        whole={props.whole}
        value={props.value}
        onChange={props.onChange}
      />
    </Labelled>
  );
}
