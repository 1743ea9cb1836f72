import type { Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { SelectBox, TextBox } from "../../kit/fields";

type Enclosed = NonNullable<Schemas["MessageTemplate"]["enclosed"]>;

interface Props {
  enclosed: Enclosed | undefined;
  parts: Schemas["MessageParts"] | undefined;
  onChange: (enclosed: Enclosed) => void;
}

const nothing: Enclosed = { cc: [], files: [], sender: null };

/** What goes with a message, and in whose name it comes. */
export function EnclosedFields({ enclosed = nothing, parts, onChange }: Props) {
  const { cc, files, sender } = enclosed;
  const nameOf = (file: string) => parts?.files.find((one) => one.key === file)?.name ?? "a deleted file";
  return (
    <details open={cc.length + files.length > 0 || !!sender}>
      <summary className="cursor-pointer font-semibold">Attachments, copies and sender</summary>
      <div className="mt-2 grid gap-3">
        <div>
          <SelectBox
            label="Attach a file"
            help="From the files of your library."
            value=""
            onChange={(e) => e.target.value && onChange({ cc, sender, files: [...files, e.target.value] })}
          >
            <option value="">choose …</option>
            {parts?.files
              .filter((one) => !files.includes(one.key))
              .map((one) => (
                <option key={one.key} value={one.key}>
                  {one.name}
                </option>
              ))}
          </SelectBox>
          <ul className="mt-1">
            {files.map((file) => (
              <li key={file} className="flex items-center justify-between gap-2">
                <span className="min-w-0 truncate">{nameOf(file)}</span>
                <Button
                  weight="quiet"
                  onClick={() => onChange({ cc, sender, files: files.filter((one) => one !== file) })}
                >
                  Remove
                </Button>
              </li>
            ))}
          </ul>
        </div>
        <TextBox
          label="A copy to"
          help="E-mail addresses, separated by commas. Leave empty for none."
          value={cc.join(", ")}
          onChange={(e) =>
            onChange({
              files,
              sender,
              cc: e.target.value === "" ? [] : e.target.value.split(",").map((one) => one.trimStart()),
            })
          }
        />
        <SelectBox
          label="Sent in the name of"
          help="Their signature goes below it, if the message has one."
          value={sender ?? ""}
          onChange={(e) => onChange({ cc, files, sender: e.target.value || null })}
        >
          <option value="">your business</option>
          {parts?.people.map((one) => (
            <option key={one.key} value={one.key}>
              {one.name}
            </option>
          ))}
        </SelectBox>
      </div>
    </details>
  );
}
