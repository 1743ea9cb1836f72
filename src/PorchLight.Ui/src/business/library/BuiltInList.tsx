import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link } from "react-router";
import { type Schemas } from "../../api/problem";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";

const wordings: Record<Schemas["Wording"], string> = {
  standard: "Standard wording.",
  own: "Your own wording.",
  off: "Not sent.",
};

/** The messages that the program sends by itself, and what each form sends at once to who fills it in. */
export function BuiltInList() {
  const list = useQuery(ask(["library", "built-in"], () => api.GET("/api/library/built-in")));
  if (!list.data) return <Failure error={list.error} />;
  return (
    <>
      <section aria-labelledby="built-in" className="mb-6">
        <h2 id="built-in" className="mb-2 text-section">
          Built-in messages
        </h2>
        <ul className="grid gap-2">
          {list.data.messages.map((row) => (
            <li
              key={row.kind}
              className="grid gap-x-6 rounded-soft bg-card p-4 shadow-soft sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]"
            >
              <span className="min-w-0">
                <Link to={`/library/by-itself/${row.kind}`} className="font-semibold underline">
                  {row.name}
                </Link>
                <span className="block text-slate">{row.when}</span>
              </span>
              <span className="text-slate">
                <span className={row.wording === "off" ? "font-semibold text-ink" : ""}>{wordings[row.wording]}</span>{" "}
                {row.withoutIt}
                {row.formsOfTheirOwn.length > 0 && (
                  <span className="block">
                    Otherwise for {row.formsOfTheirOwn.map((title) => `“${title}”`).join(", ")}.
                  </span>
                )}
              </span>
            </li>
          ))}
        </ul>
      </section>
      <section aria-labelledby="thanks" className="mb-6">
        <h2 id="thanks" className="mb-2 text-section">
          Thanks for a form
        </h2>
        <p className="mb-2 max-w-3xl text-slate">
          The first message after someone sends a form is the first step of a follow-through. Rewrite it there, or
          switch that follow-through off: people then see the page at the end of the form and get no mail.
        </p>
        <ul className="divide-y divide-line rounded-soft bg-card px-4 shadow-soft">
          {list.data.thanks.map((row) => (
            <li
              key={`${row.form} ${row.followThroughId}`}
              className="grid gap-x-6 py-2 sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]"
            >
              <span>{row.form}</span>
              {row.followThroughId ? (
                <span className="min-w-0">
                  <Link to={`/follow-through/${row.followThroughId}`} className="underline">
                    {row.followThrough}
                  </Link>
                </span>
              ) : (
                <span className="text-slate">No mail: they see the page at the end of the form.</span>
              )}
            </li>
          ))}
        </ul>
      </section>
    </>
  );
}
