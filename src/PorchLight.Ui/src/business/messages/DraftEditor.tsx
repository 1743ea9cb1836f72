import type { Schemas } from "../../api/problem";
import { boxLook, GrowingText } from "../../kit/fields";

type Draft = Schemas["MessageDraft"];
type Part = Draft["parts"][number];

interface Props {
  to: string;
  draft: Draft;
  onChange: (draft: Draft) => void;
  /** The keys of the gaps that were found open when it should go. */
  missing: ReadonlyMap<string, string>;
  /** Whether the person writes it themselves: words stand in boxes, and what goes with it is named elsewhere. */
  isOwn?: boolean;
}

/** A message as it would go out. Every word can be changed; the dashed boxes must be filled first. */
export function DraftEditor({ to, draft, onChange, missing, isOwn = false }: Props) {
  const changePart = (part: Part) =>
    onChange({ ...draft, parts: draft.parts.map((old) => (old.key === part.key ? part : old)) });
  return (
    <div className="rounded-soft border border-edge p-5">
      <p className="mb-3 text-slate">To {to}</p>
      <label className="mb-4 block">
        <span className="mb-1 block font-semibold">Subject</span>
        <input
          className={boxLook}
          value={draft.subject}
          onChange={(e) => onChange({ ...draft, subject: e.target.value })}
        />
      </label>
      {draft.parts.map((part) =>
        part.kind === "gap" ? (
          <GrowingText
            key={part.key}
            aria-label={part.prompt}
            aria-invalid={missing.has(part.key) && !part.filled?.trim() ? true : undefined}
            placeholder={part.prompt}
            value={part.filled ?? ""}
            onChange={(e) => changePart({ ...part, filled: e.target.value })}
            className={`my-2 w-full rounded-soft border-2 border-dashed px-3 py-2 placeholder:text-slate placeholder:opacity-100 ${part.filled?.trim() ? "border-edge bg-card" : "border-dusk bg-glow"} aria-invalid:border-brick`}
          />
        ) : (
          <GrowingText
            key={part.key}
            aria-label={isOwn ? "Your words" : "Words of the message"}
            value={part.text}
            onChange={(e) => changePart({ ...part, text: e.target.value })}
            className={
              isOwn
                ? `${boxLook} ${draft.parts.length === 1 ? "min-h-28" : ""}`
                : "-mx-1 w-[calc(100%+0.5rem)] rounded-soft bg-card px-1 py-0.5 hover:bg-mist"
            }
          />
        ),
      )}
      {!isOwn && <Beside enclosed={draft.enclosed} />}
    </div>
  );
}

/** What goes with it. */
function Beside({ enclosed }: { enclosed: Draft["enclosed"] }) {
  const cc = enclosed?.cc ?? [];
  const files = enclosed?.files.length ?? 0;
  if (cc.length + files === 0) return null;
  return (
    <p className="mt-3 border-t border-line pt-2 text-slate">
      {cc.length > 0 && `A copy goes to ${cc.join(", ")}. `}
      {files > 0 && (files === 1 ? "One file attached." : `${files} files attached.`)}
    </p>
  );
}
