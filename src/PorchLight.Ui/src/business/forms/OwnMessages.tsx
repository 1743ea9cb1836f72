import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api } from "../../api/client";
import { ask } from "../../api/ask";
import type { Schemas } from "../../api/problem";
import { Failure } from "../../kit/states";

const wordings: Record<Schemas["Wording"], string> = {
  standard: "as in the library",
  own: "own wording",
  off: "not sent",
};

/** The messages about this form that the program sends by itself. */
export function OwnMessages({ form }: { form: string }) {
  const list = useQuery(
    ask(["library", "built-in", form], () => api.GET("/api/library/built-in", { params: { query: { form } } })),
  );
  return (
    <section aria-labelledby="its-messages" className="rounded-soft bg-card p-6 shadow-soft">
      <h2 id="its-messages" className="text-section">
        Its messages
      </h2>
      <p className="mb-2 text-slate">Mails about this form. Each can have its own wording.</p>
      <ul className="divide-y divide-line">
        {list.data?.messages.map((one) => (
          <li key={one.kind} className="flex flex-wrap justify-between gap-x-4 py-1">
            <Link to={`/library/by-itself/${one.kind}?form=${form}`} className="underline">
              {one.name}
            </Link>
            <span className="text-slate">{wordings[one.wording]}</span>
          </li>
        ))}
      </ul>
      <Failure error={list.error} />
    </section>
  );
}
