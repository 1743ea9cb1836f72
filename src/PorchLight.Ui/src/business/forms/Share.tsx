import { Link } from "react-router";
import type { Schemas } from "../../api/problem";
import { buttonLook } from "../../kit/Button";
import { CopyBox } from "../../kit/CopyBox";
import { boxLook, GrowingText } from "../../kit/fields";

interface Props {
  form: Schemas["FormView"];
  awayNote: string;
  onAwayNote: (words: string) => void;
}

/** How people get to the form, what they see while its light is off, and how their answers get out. */
export function Share({ form, awayNote, onAwayNote }: Props) {
  return (
    <div className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="mb-2 text-[1.07rem]">Share</h2>
      {form.version === 0 && <p className="mb-3">Publish the form first; until then the link shows nothing.</p>}
      <CopyBox label="Link" help="For a mail, a signature or a profile." text={form.sharing.link} rows={2} />
      <CopyBox
        label="Embed code"
        help="Paste it into a page of your own site, where the form should stand."
        text={form.sharing.inline}
        rows={4}
      />
      <p className="mb-4">
        <Link to={`/forms/${form.id}/ways-in`} className="underline">
          More ways: a button, a link in a text, tagged and personal links
        </Link>
      </p>
      <label className="mb-4 block">
        <span className="block font-semibold">Message while closed</span>
        <span className="mb-1 block text-slate">
          What people see {form.shines ? "while the light is off." : "now, for the light is off."}
        </span>
        <GrowingText className={boxLook} value={awayNote} onChange={(e) => onAwayNote(e.target.value)} />
      </label>
      <a href={`/api/forms/${form.id}/answers.csv`} download className={buttonLook("plain")}>
        Download all answers (CSV)
      </a>
    </div>
  );
}
