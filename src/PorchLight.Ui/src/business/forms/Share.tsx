import { Link } from "react-router";
import type { Schemas } from "../../api/problem";
import { buttonLook } from "../../kit/Button";
import { CopyBox } from "../../kit/CopyBox";
import { useSession } from "../shell/session";
import { AwayNote } from "../workbench/AwayNote";

/** How people get to the form, what they see while its light is off, and how their answers get out. */
export function Share({ form }: { form: Schemas["FormView"] }) {
  return (
    <div className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="mb-2 text-section">Share</h2>
      <OnlyNear form={form} />
      {form.version === 0 && <p className="mb-3">Publish the form first; until then the link shows nothing.</p>}
      <CopyBox label="Link" help="For a mail, a signature or a profile." text={form.sharing.link} rows={2} />
      <div className="mb-4">
        <AwayNote id={form.id} />
      </div>
      <a href={`/api/forms/${form.id}/answers.csv`} download className={buttonLook("plain")}>
        Download all answers (CSV)
      </a>
    </div>
  );
}

/** Said where links are taken from, while nobody outside could open them. */
function OnlyNear({ form }: { form: Schemas["FormView"] }) {
  const { role } = useSession();
  return (
    form.sharing.isOnlyNear && (
      <p className="mb-4 rounded-soft bg-glow p-3">
        These links work only on this computer or network.{" "}
        {role === "owner" ? (
          <>
            Set your public address in{" "}
            <Link to="/settings/business" className="underline">
              Settings
            </Link>{" "}
            before you share them.
          </>
        ) : (
          "Ask the owner to set the public address before you share them."
        )}
      </p>
    )
  );
}
