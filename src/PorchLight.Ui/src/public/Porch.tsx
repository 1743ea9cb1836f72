import { useEffect, useRef, useState, type ReactNode } from "react";
import { sentenceOf } from "../api/problem";
import { loadFace } from "../kit/faces";
import { showForm, type PublicForm, type SentView } from "./client";
import { Cover } from "./Cover";
import { load } from "./filling";
import { FormPages } from "./FormPages";
import { isEmbedded, reportHeight, within } from "./frame";
import { SendOff } from "./SendOff";

/** The public form from the first look to the send-off. */
export function Porch({ token }: { token: string }) {
  const [form, setForm] = useState<PublicForm | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const [sent, setSent] = useState<SentView | null>(null);
  // Who has begun before does not stand before the door again.
  const [started, setStarted] = useState(() => load(token) !== null);
  const outside = useRef<HTMLDivElement>(null);

  useEffect(() => {
    document.documentElement.toggleAttribute("data-embedded", isEmbedded);
    showForm(token, location.search, within ?? (document.referrer || null)).then(
      (shown) => {
        document.title = `${shown.title}, ${shown.business}`;
        dress(shown.look);
        setForm(shown);
      },
      (error: unknown) => setFailure(sentenceOf(error)),
    );
  }, [token]);
  useEffect(() => (outside.current ? reportHeight(outside.current) : undefined), []);

  return (
    <div ref={outside} className={isEmbedded ? "p-1" : "px-3 py-6 sm:py-10"}>
      <main className="mx-auto max-w-2xl rounded-soft bg-card p-5 shadow-soft sm:p-8">
        {form?.logo && <img src={form.logo} alt={form.business} className="mb-3 max-h-16 max-w-60" />}
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
        ) : form.cover && !started ? (
          <Cover form={form} onStart={() => setStarted(true)} />
        ) : (
          <FormPages token={token} form={form} onSent={setSent} />
        )}
      </main>
    </div>
  );
}

/** Puts on the brand's colours and typeface; words are there before the face is. */
function dress(look: PublicForm["look"]) {
  const style = document.documentElement.style;
  style.setProperty("--brand", look.accent);
  style.setProperty("--backdrop", look.backdrop);
  void loadFace(look.typeface).then((family) => {
    style.setProperty("--font-body", family);
    style.setProperty("--font-head", family);
  });
}

function Quiet({ title, children }: { title: string; children: ReactNode }) {
  return (
    <>
      <h1 className="mb-3 text-2xl">{title}</h1>
      <p>{children}</p>
    </>
  );
}
