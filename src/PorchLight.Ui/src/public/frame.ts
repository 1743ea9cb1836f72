/** The page this form stands on, when it is embedded; told by the embed script. */
export const within = new URLSearchParams(location.search).get("within");

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

/** Asks the page around us to bring our top into view, after a page turn. */
export function toTop(): void {
  if (isEmbedded) window.parent.postMessage({ porchLight: "top" }, "*");
  else window.scrollTo({ top: 0 });
}
