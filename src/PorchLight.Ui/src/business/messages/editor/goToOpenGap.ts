/** Sets the caret into the first gap that is still to be filled. */
export function goToOpenGap(within: HTMLElement | null) {
  const line = within?.querySelector<HTMLElement>("[data-open] [data-node-view-content] p");
  if (!line) return;
  line.closest<HTMLElement>("[contenteditable=true]")?.focus();
  getSelection()?.collapse(line, 0);
}
