import type { Schemas } from "../../../api/problem";
import { SelectBox } from "../../../kit/fields";

type Width = Schemas["ItemWidth"];

/** How much of the line something takes where there is room. */
export const WidthBox = ({ value, onChange }: { value: Width | undefined; onChange: (width: Width) => void }) => (
  <SelectBox label="Width" value={value ?? "full"} onChange={(e) => onChange(e.target.value as Width)}>
    <option value="full">the whole line</option>
    <option value="half">half of it</option>
    <option value="third">a third of it</option>
  </SelectBox>
);
