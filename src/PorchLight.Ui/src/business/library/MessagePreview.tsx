import { useDeferredValue, useState } from "react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { type Schemas } from "../../api/problem";
import { SelectBox } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";

interface Props {
  message: Schemas["MessageTemplate"];
  /** The message of the program it is; null for one that goes to a person of the records. */
  builtIn?: Schemas["BuiltInMessage"] | null;
}

/** The message as one person would get it. */
export function MessagePreview({ message, builtIn = null }: Props) {
  const [client, setClient] = useState("");
  const shown = useDeferredValue(message);
  const people = useQuery({
    ...ask(["people-to-see-it-for"], () => api.GET("/api/library/messages/people")),
    enabled: builtIn === null,
  });
  const body = { message: shown, clientId: client || null, builtIn };
  const preview = useQuery({
    ...ask(["message-preview", body], () => api.POST("/api/library/messages/preview", { body })),
    placeholderData: keepPreviousData,
  });
  return (
    <section aria-label="Preview" className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="mb-2 text-section">Preview</h2>
      {builtIn === null && (
        <SelectBox label="Who gets it" value={client} onChange={(e) => setClient(e.target.value)}>
          <option value="">An example</option>
          {people.data?.map((one) => (
            <option key={one.key} value={one.key}>
              {one.name}
            </option>
          ))}
        </SelectBox>
      )}
      <Failure error={preview.error} />
      {preview.data && (
        <div className="mt-3 rounded-soft border border-edge p-4">
          {builtIn === null && <p className="text-slate">To {preview.data.to}</p>}
          <p className="mb-2 font-semibold">{preview.data.subject || "no subject yet"}</p>
          {/* The server has made it of the few tags a message can have, and cleaned it. */}
          <div className="formatted wrap-anywhere" dangerouslySetInnerHTML={{ __html: preview.data.html }} />
          {preview.data.files.length > 0 && (
            <p className="mt-2 border-t border-line pt-2 text-slate">With it: {preview.data.files.join(", ")}</p>
          )}
        </div>
      )}
    </section>
  );
}
