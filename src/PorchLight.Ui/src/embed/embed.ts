// Runs on other people's sites. An element with data-porch-light="…" becomes the form: as a frame in its place, or, with
// data-as="link" or "button", as a dialog that it opens; a button floats in the corner of the page.
const script = document.currentScript as HTMLScriptElement | null;
const origin = script ? new URL(script.src).origin : "";
const frames = new Map<MessageEventSource, { frame: HTMLIFrameElement; dialog?: HTMLDialogElement }>();

/** The form's address, with the tags of this page's own address and what the element says it shall fill in. */
function addressOf(token: string, place: HTMLElement): string {
  const query = new URLSearchParams(location.search.slice(0, 1000));
  new URLSearchParams(place.dataset.fill).forEach((value, name) => query.set(name, value));
  query.set("within", location.origin + location.pathname);
  return `${origin}/f/${encodeURIComponent(token)}?${query}`;
}

/** What the form is called: as the code says, or as the link that opens it. */
function titleOf(place: HTMLElement): string {
  return place.dataset.title ?? (place.textContent.trim() || "A form to fill in");
}

function makeFrame(token: string, place: HTMLElement, style: string): HTMLIFrameElement {
  const frame = document.createElement("iframe");
  frame.src = addressOf(token, place);
  frame.title = titleOf(place);
  frame.style.cssText = `display:block;width:100%;border:0;color-scheme:normal;${style}`;
  return frame;
}

function setInto(place: HTMLElement, token: string): void {
  const frame = makeFrame(token, place, "height:480px;overflow:hidden");
  place.append(frame);
  if (frame.contentWindow) frames.set(frame.contentWindow, { frame });
}

function opens(place: HTMLElement, token: string): void {
  let dialog: HTMLDialogElement | null = null;
  place.addEventListener("click", (event) => {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    dialog ??= makeDialog(place, token);
    dialog.showModal();
  });
}

function makeDialog(place: HTMLElement, token: string): HTMLDialogElement {
  const dialog = document.createElement("dialog");
  dialog.setAttribute("aria-label", titleOf(place));
  dialog.style.cssText =
    "width:min(46rem,100vw);height:min(56rem,100vh);max-width:100vw;max-height:100vh;padding:0;border:0;border-radius:8px;overflow:hidden;background:#fff";
  const close = document.createElement("button");
  close.type = "button";
  close.textContent = "Close";
  close.style.cssText =
    "position:absolute;top:8px;right:14px;min-height:36px;padding:0 14px;border:1px solid #7c8196;border-radius:6px;background:#fff;color:#1d2033;font:600 15px system-ui,sans-serif;cursor:pointer";
  close.addEventListener("click", () => dialog.close());
  const frame = makeFrame(token, place, "height:calc(100% - 52px);margin-top:52px");
  dialog.append(frame, close);
  document.body.append(dialog);
  if (frame.contentWindow) frames.set(frame.contentWindow, { frame, dialog });
  return dialog;
}

/** The accent of the business, on which white can be read; only a colour, whatever the code says. */
function colourOf(place: HTMLElement): string {
  return /^#[0-9a-f]{6}$/i.test(place.dataset.colour ?? "") ? place.dataset.colour! : "#2a2f5b";
}

function light(place: HTMLElement): void {
  const token = place.dataset.porchLight;
  if (!token || place.dataset.porchLit) return;
  place.dataset.porchLit = "yes";
  const as = place.dataset.as;
  if (as === "button")
    place.style.cssText += `;position:fixed;right:20px;bottom:20px;z-index:2147483000;padding:14px 22px;border-radius:6px;background:${colourOf(place)};color:#fff;font:600 16px system-ui,sans-serif;text-decoration:none;box-shadow:0 2px 12px rgb(29 32 51/.3)`;
  if (as === "button" || as === "link") opens(place, token);
  else setInto(place, token);
}

addEventListener("message", (event: MessageEvent<unknown>) => {
  const one = event.source && event.origin === origin ? frames.get(event.source) : undefined;
  if (!one || typeof event.data !== "object" || event.data === null) return;
  const { porchLight, height } = event.data as { porchLight?: unknown; height?: unknown };
  if (one.dialog) {
    if (porchLight === "close") one.dialog.close();
  } else if (porchLight === "height" && typeof height === "number" && height > 0 && height < 20000) {
    one.frame.style.height = `${Math.ceil(height)}px`;
  } else if (porchLight === "top" && one.frame.getBoundingClientRect().top < 0) {
    one.frame.scrollIntoView({ block: "start" });
  }
});

function lightAll(): void {
  document.querySelectorAll<HTMLElement>("[data-porch-light]").forEach(light);
}

if (document.readyState === "loading") document.addEventListener("DOMContentLoaded", lightAll);
else lightAll();

export {};
