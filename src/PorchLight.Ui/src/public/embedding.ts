/** The page this form stands on, when it is embedded; told by the embed script. */
export const within = new URLSearchParams(location.search).get("within");

/** What lets somebody of the business look at the working copy; a bare "1" only opens a page at what needs another look. */
const looks = new URLSearchParams(location.search).get("look");
export const previewTicket = looks === "1" ? null : looks;

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
