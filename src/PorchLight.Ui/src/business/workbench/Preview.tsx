import { memo, useEffect, useEffectEvent, useRef, useState } from "react";
import type { Schemas } from "../../api/problem";
import { find, itemsOn } from "./form";
import { useWorkbench } from "./workbenchContext";

export type Answers = Record<string, Schemas["Answer"]>;

const wideScreen = 1024;

interface Props {
  /** The revision that is stored: the preview shows it as soon as it is. */
  revision: number;
  onAnswers: (answers: Answers) => void;
  /** What the fit can still become for the answers in it, in words; null while nobody is sorted. */
  fit: string | null;
}

/** The real public page of the working copy. It can be answered to the end; nothing of it is kept or counted. */
export const Preview = memo(function Preview({ revision, onAnswers, fit }: Props) {
  const { id, form, at } = useWorkbench();
  const [width, setWidth] = useState<"phone" | "wide">("phone");
  const frame = useRef<HTMLIFrameElement>(null);
  const room = useRef<HTMLDivElement>(null);
  const [scale, setScale] = useState(1);

  const chosen = find(form, at);
  const page =
    chosen.what === "page"
      ? chosen.page.key
      : chosen.what === "item"
        ? chosen.item.page
        : chosen.what === "cell"
          ? chosen.of.page
          : null;
  const item = chosen.what === "item" ? at : chosen.what === "cell" ? chosen.of.key : null;
  const canShow = form.pages.some((one) => itemsOn(form, one.key).length > 0);

  const show = useEffectEvent(() =>
    frame.current?.contentWindow?.postMessage({ porchLight: "show", page, item }, location.origin),
  );
  useEffect(() => {
    const hear = ({ source, origin, data }: MessageEvent) => {
      if (source !== frame.current?.contentWindow || origin !== location.origin) return;
      const said = data as { porchLight?: string; answers?: Answers };
      if (said.porchLight === "answers") onAnswers(said.answers ?? {});
      if (said.porchLight === "ready") show();
    };
    addEventListener("message", hear);
    return () => removeEventListener("message", hear);
  }, [onAnswers]);

  // What is stored, and the page that is worked on, is what is shown.
  useEffect(() => {
    show();
  }, [page, item, revision]);

  useEffect(() => {
    if (!room.current) return;
    const observer = new ResizeObserver(([seen]) => setScale((seen?.contentRect.width ?? wideScreen) / wideScreen));
    observer.observe(room.current);
    return () => observer.disconnect();
  }, []);

  const isWide = width === "wide";
  return (
    <section aria-label="Preview" className="flex h-full min-h-0 flex-col">
      <div className="mb-2 flex items-center justify-between">
        <h2 className="text-section">Preview</h2>
        <span role="group" aria-label="How wide the preview is" className="flex gap-1">
          {(["phone", "wide"] as const).map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={width === one}
              className={`rounded-soft px-2 py-0.5 ${width === one ? "bg-dusk font-semibold text-card" : "hover:underline"}`}
              onClick={() => setWidth(one)}
            >
              {one}
            </button>
          ))}
        </span>
      </div>
      {fit && (
        <p role="status" className="mb-2">
          Fit so far: <strong>{fit}</strong>
        </p>
      )}
      <div ref={room} className="relative min-h-0 flex-1 overflow-hidden rounded-soft border border-line bg-card">
        {canShow ? (
          <iframe
            ref={frame}
            title="The form as people see it"
            src={`/api/forms/${id}/look`}
            className="absolute top-0 left-0 origin-top-left border-0"
            style={
              isWide
                ? { width: wideScreen, height: `${100 / scale}%`, transform: `scale(${scale})` }
                : { width: "100%", height: "100%" }
            }
          />
        ) : (
          <p className="p-5 text-slate">As soon as something is asked, you see here what people will see.</p>
        )}
      </div>
    </section>
  );
});
