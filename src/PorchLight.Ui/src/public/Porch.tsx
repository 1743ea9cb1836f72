import { useEffect, useRef, useState, type ReactNode } from "react";
import { sentenceOf } from "../api/problem";
import { showForm, type PublicForm, type SentView } from "./client";
import { FormPages } from "./FormPages";
import { isEmbedded, reportHeight } from "./frame";
import { SendOff } from "./SendOff";

/** The public form from the first look to the send-off. */
export function Porch({ token }: { token: string }) {
  const [form, setForm] = useState<PublicForm | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const [sent, setSent] = useState<SentView | null>(null);
  const outside = useRef<HTMLDivElement>(null);

  useEffect(() => {
    document.documentElement.toggleAttribute("data-embedded", isEmbedded);
    showForm(token).then(
      (shown) => {
        document.title = `${shown.title}, ${shown.business}`;
        document.documentElement.style.setProperty("--brand", shown.accent);
        setForm(shown);
      },
      (error: unknown) => setFailure(sentenceOf(error)),
    );
  }, [token]);
  useEffect(() => (outside.current ? reportHeight(outside.current) : undefined), []);

  return (
    <div ref={outside} className={isEmbedded ? "p-1" : "px-3 py-6 sm:py-10"}>
      <main className="mx-auto max-w-2xl rounded-soft bg-card p-5 shadow-soft sm:p-8">
        {failure ? (
          <Quiet title="This door does not open">{failure}</Quiet>
        ) : !form ? (
          <p role="status" className="text-slate">
            One moment …
          </p>
        ) : sent ? (
          <SendOff sent={sent} business={form.business} />
        ) : !form.lightOn ? (
          <Quiet title={`${form.title}: the light is off`}>{form.awayNote}</Quiet>
        ) : (
          <FormPages token={token} form={form} onSent={setSent} />
        )}
      </main>
    </div>
  );
}

function Quiet({ title, children }: { title: string; children: ReactNode }) {
  return (
    <>
      <h1 className="mb-3 text-2xl">{title}</h1>
      <p>{children}</p>
    </>
  );
}
