// Runs on other people's sites: turns every <div data-porch-light="…"> into a frame with the form, as high as its content.
const script = document.currentScript as HTMLScriptElement | null;
const house = script ? new URL(script.src).origin : "";
const frames = new Map<MessageEventSource, HTMLIFrameElement>();

function light(place: HTMLElement): void {
  const token = place.dataset.porchLight;
  if (!token || place.dataset.porchLit) return;
  place.dataset.porchLit = "yes";
  const frame = document.createElement("iframe");
  const page = encodeURIComponent(location.origin + location.pathname);
  frame.src = `${house}/f/${encodeURIComponent(token)}?within=${page}`;
  frame.title = place.dataset.title ?? "A form to fill in";
  frame.style.cssText = "display:block;width:100%;height:480px;border:0;overflow:hidden;color-scheme:normal";
  place.append(frame);
  if (frame.contentWindow) frames.set(frame.contentWindow, frame);
}

addEventListener("message", (event: MessageEvent<unknown>) => {
  const frame = event.source && event.origin === house ? frames.get(event.source) : undefined;
  if (!frame || typeof event.data !== "object" || event.data === null) return;
  const { porchLight, height } = event.data as { porchLight?: unknown; height?: unknown };
  if (porchLight === "height" && typeof height === "number" && height > 0 && height < 20000) {
    frame.style.height = `${Math.ceil(height)}px`;
  } else if (porchLight === "top" && frame.getBoundingClientRect().top < 0) {
    frame.scrollIntoView({ block: "start" });
  }
});

function lightAll(): void {
  document.querySelectorAll<HTMLElement>("[data-porch-light]").forEach(light);
}

if (document.readyState === "loading") document.addEventListener("DOMContentLoaded", lightAll);
else lightAll();

export {};
