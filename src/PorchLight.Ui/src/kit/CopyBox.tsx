import { Check, Copy } from "lucide-react";
import { useState } from "react";
import { Button } from "./Button";
import { boxLook } from "./fields";

/** Words to be taken elsewhere, with a button that copies them. */
export function CopyBox({ label, help, text, rows }: { label: string; help: string; text: string; rows: number }) {
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
        className={`${boxLook} field-sizing-content resize-none font-mono text-caption break-all`}
      />
      <p role="status" className="text-brick">
        {copied === "no" && "This browser does not let us copy. Select the text above and copy it by hand."}
      </p>
    </div>
  );
}
