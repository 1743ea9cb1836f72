import { useQuery } from "@tanstack/react-query";
import { askOnce } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { plainText } from "../messages/editor/formattedText";
import { FormattedBox } from "../messages/FormattedBox";
import { useMessageParts } from "../messages/useMessageParts";
import { SavedForm } from "../saving/SavedForm";
import type { Edit } from "../saving/merge";
import { useEdit } from "../saving/useEdit";
import { useSession } from "../shell/session";

type Signature = Schemas["Signature"];

/** What stands below messages: the business's, and one's own. */
export function Signatures() {
  const { role } = useSession();
  const query = useQuery(askOnce(["signatures"], () => api.GET("/api/library/signatures")));
  if (!query.data) return query.error ? <Failure error={query.error} /> : <Skeleton rows={3} />;
  const { business, mine, used } = query.data;
  return (
    <section className="mt-8">
      <h2 className="mb-1 text-section">Signatures</h2>
      <p className="mb-3 max-w-3xl text-slate">
        A signature stands where a message has “The signature” set in. Without one of its own, a message closes with:{" "}
        {plainText(used).replace(/\n/g, ", ")}.
      </p>
      <div className="grid items-start gap-6 lg:grid-cols-2">
        {role === "owner" && (
          <SignatureForm
            label="Your business's"
            signature={business}
            save={(body) => orProblem(api.PUT("/api/library/signatures/business", { body }))}
          />
        )}
        <SignatureForm
          label="Your own, below messages in your name"
          signature={mine}
          save={(body) => orProblem(api.PUT("/api/library/signatures/mine", { body }))}
        />
      </div>
    </section>
  );
}

interface Props {
  label: string;
  signature: Signature;
  save: (edit: Edit<Signature>) => Promise<Signature>;
}

function SignatureForm({ label, signature, save }: Props) {
  const edit = useEdit(signature, save);
  const parts = useMessageParts();
  return (
    <SavedForm edit={edit} nameOf={() => label}>
      <FormattedBox
        label={label}
        error={edit.findings.get("text")}
        pictures={parts?.pictures}
        value={edit.now.text}
        onChange={(text) => edit.change({ text })}
      />
    </SavedForm>
  );
}
