/** The key that does what a button says; no part of the button's words. */
export const KeyCap = ({ children }: { children: string }) => (
  <kbd
    aria-hidden
    data-key={children}
    className="rounded-[4px] border border-current px-1.5 font-body text-caption leading-5 opacity-80 before:content-[attr(data-key)]"
  />
);
