import { Check, Copy } from "lucide-react";
import { useState } from "react";
import type { Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { boxLook } from "../../kit/fields";

/** How people get to the form. */
export function Share({ form }: { form: Schemas["FormView"] }) {
  return (
    <div className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="mb-2 text-[1.07rem]">Bring people here</h2>
      {form.version === 0 && <p className="mb-3">Publish the form first; until then the link shows nothing.</p>}
      {!form.lightOn && <p className="mb-3">The light is off, so people see: “{form.awayNote}”</p>}
      <CopyBox label="Link" help="For a mail, a signature or a profile." text={form.link} rows={2} />
      <CopyBox
        label="Embed code"
        help="Paste it into a page of your own site, where the form should stand."
        text={form.embedCode}
        rows={4}
      />
    </div>
  );
}

function CopyBox({ label, help, text, rows }: { label: string; help: string; text: string; rows: number }) {
  const [copied, setCopied] = useState<"" | "yes" | "no">("");
  const copy = () =>
    (navigator.clipboard ? navigator.clipboard.writeText(text) : Promise.reject(new Error("No clipboard"))).then(
      () => setCopied("yes"),
      () => setCopied("no"),
    );
  return (
    <div className="mb-4">
      <div className="mb-1 flex items-end justify-between gap-3">
        <span className="font-semibold">{label}</span>
        <Button onClick={() => void copy()} aria-label={`Copy the ${label.toLowerCase()}`}>
          {copied === "yes" ? <Check size={16} aria-hidden /> : <Copy size={16} aria-hidden />}{" "}
          {copied === "yes" ? "Copied" : "Copy"}
        </Button>
      </div>
      <p className="mb-1 text-slate">{help}</p>
      <textarea
        readOnly
        aria-label={label}
        rows={rows}
        value={text}
        onFocus={(e) => e.target.select()}
        className={`${boxLook} resize-none font-mono text-[0.87rem] break-all`}
      />
      <p role="status" className="text-brick">
        {copied === "no" && "This browser does not let us copy. Select the text above and copy it by hand."}
      </p>
    </div>
  );
}
