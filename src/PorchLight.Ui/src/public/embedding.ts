/** The page this form stands on, when it is embedded; told by the embed script. */
export const within = new URLSearchParams(location.search).get("within");

/** What lets somebody of the business look at the working copy; a bare "1" only opens a page at what needs another look. */
const looks = new URLSearchParams(location.search).get("look");
export const previewTicket = looks === "1" ? null : looks;

/** What lets somebody of the business write down here what a lead said. */
export const writeDownTicket = new URLSearchParams(location.search).get("writeDown");

/** This page's address, so that a reload brings back what is named; whatever else it says stays. */
export function addressWith(name: "later" | "sent", value: string): string {
  const query = new URLSearchParams(location.search);
  for (const one of ["later", "sent", ...(previewTicket ? [] : ["look"])]) query.delete(one);
  query.set(name, value);
  return `?${query}`;
}

export const isEmbedded = window.parent !== window;

/** Tells the page around us how high we are, now and whenever that changes. */
export function reportHeight(element: HTMLElement): () => void {
  if (!isEmbedded) return () => {};
  const observer = new ResizeObserver(() =>
    window.parent.postMessage({ porchLight: "height", height: element.getBoundingClientRect().height }, "*"),
  );
  observer.observe(element);
  return () => observer.disconnect();
}

/** Where we stand in a dialog of the page around us, Escape closes it, as in any dialog. */
export function closeOnEscape(): (() => void) | undefined {
  if (!isEmbedded) return;
  const close = (event: KeyboardEvent) => {
    if (event.key === "Escape" && !event.defaultPrevented) window.parent.postMessage({ porchLight: "close" }, "*");
  };
  addEventListener("keydown", close);
  return () => removeEventListener("keydown", close);
}

/** Asks the page around us to bring our top into view, after a page turn. */
export function toTop(): void {
  if (isEmbedded) window.parent.postMessage({ porchLight: "top" }, "*");
  else window.scrollTo({ top: 0 });
}

/** Somebody of the business builds the form beside us: they see it as it is stored, page by page. */
export const isPreviewed = previewTicket !== null && isEmbedded;

/**
 * Listens for what the workbench around us wants to be shown.
 * @param onShow Called with the page to show, null for the beginning, and what is worked on there, whenever that or what is stored
 * changed.
 */
export function listenToWorkbench(
  onShow: (page: string | null, item: string | null) => void,
): (() => void) | undefined {
  if (!isPreviewed) return;
  const hear = ({ source, origin, data }: MessageEvent) => {
    if (source !== window.parent || origin !== location.origin) return;
    const said = data as { porchLight?: string; page?: string | null; item?: string | null };
    if (said.porchLight === "show") onShow(said.page ?? null, said.item ?? null);
  };
  addEventListener("message", hear);
  window.parent.postMessage({ porchLight: "ready" }, location.origin);
  return () => removeEventListener("message", hear);
}

/** Tells the workbench around us what is answered, so that it can say what comes of it. */
export function tellWorkbench(answers: unknown): void {
  if (isPreviewed) window.parent.postMessage({ porchLight: "answers", answers }, location.origin);
}
