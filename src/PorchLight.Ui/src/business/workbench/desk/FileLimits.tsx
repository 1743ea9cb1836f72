import type { Schemas } from "../../../api/problem";
import { CheckBox } from "../../../kit/fields";
import type { KindNamed } from "../form";
import { Amount } from "./Amount";
import { Members } from "./Members";

const groups: [Schemas["FileGroup"], string][] = [
  ["picture", "Pictures"],
  ["document", "Documents"],
  ["table", "Tables"],
  ["sound", "Sound"],
  ["film", "Film"],
  ["parcel", "Packed files (zip)"],
];

const megabyte = 1024 * 1024;

interface Props {
  kind: KindNamed<"files">;
  onChange: (part: Partial<KindNamed<"files">>) => void;
}

/** How many files may be sent, how large, and of which sorts. */
export function FileLimits({ kind, onChange }: Props) {
  const chosen = kind.groups ?? null;
  return (
    <Members
      of="QuestionKindFilesKind"
      half={["atMost", "maxBytes"]}
      fields={{
        atMost: (
          <Amount
            label="At most, files"
            whole
            value={kind.atMost ?? 5}
            onChange={(atMost) => onChange({ atMost: atMost ?? 1 })}
          />
        ),
        maxBytes: (
          <Amount
            label="Each at most, in MB"
            value={Math.round(((kind.maxBytes ?? 25 * megabyte) / megabyte) * 100) / 100}
            onChange={(size) => onChange({ maxBytes: Math.round((size ?? 25) * megabyte) })}
          />
        ),
        groups: (
          <fieldset>
            <legend className="font-semibold">What may be sent</legend>
            {groups.map(([group, words]) => (
              <CheckBox
                key={group}
                label={words}
                checked={chosen === null || chosen.includes(group)}
                onChange={(on) => {
                  const all = groups.map(([one]) => one);
                  const next = all.filter((one) => (one === group ? on : chosen === null || chosen.includes(one)));
                  onChange({ groups: next.length === all.length ? null : next });
                }}
              />
            ))}
          </fieldset>
        ),
      }}
    />
  );
}
