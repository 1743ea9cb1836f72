import type { Schemas } from "../../api/problem";
import { boxLook } from "../../kit/fields";
import { MessageEditor } from "./editor/MessageEditor";
import { useMessageParts } from "./useMessageParts";

type Draft = Schemas["MessageDraft"];

interface Props {
  to: string;
  draft: Draft;
  onChange: (draft: Draft) => void;
  /** The keys of the gaps that were found open when it should go. */
  missing: ReadonlyMap<string, string>;
  /** Whether the person writes it themselves: gaps may go, and what goes with it is named elsewhere. */
  isOwn?: boolean;
  /** Whether one goes on writing here. */
  takesFocus?: boolean;
}

/** A message as it would go out. Every word can be changed; the dashed boxes must be filled first. */
export function DraftEditor({ to, draft, onChange, missing, isOwn = false, takesFocus }: Props) {
  const parts = useMessageParts();
  return (
    <div className="grid gap-3 rounded-soft border border-edge p-5">
      <p className="text-slate">To {to}</p>
      <label className="block">
        <span className="mb-1 block font-semibold">Subject</span>
        <input
          className={boxLook}
          value={draft.subject}
          onChange={(e) => onChange({ ...draft, subject: e.target.value })}
        />
      </label>
      <MessageEditor
        label={isOwn ? "Your words" : "Words of the message"}
        stage="draft"
        gapsStay={!isOwn}
        pictures={parts?.pictures}
        missing={missing}
        takesFocus={takesFocus}
        parts={draft.parts}
        onChange={(next) => onChange({ ...draft, parts: next })}
      />
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
    <p className="border-t border-line pt-2 text-slate">
      {cc.length > 0 && `A copy goes to ${cc.join(", ")}. `}
      {files > 0 && (files === 1 ? "One file attached." : `${files} files attached.`)}
    </p>
  );
}
