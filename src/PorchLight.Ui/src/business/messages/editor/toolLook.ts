/** How a tool above words looks. */
export const toolLook =
  "inline-flex min-h-8 items-center gap-1 rounded-soft px-1.5 text-note text-dusk hover:bg-mist aria-pressed:bg-mist aria-pressed:font-semibold";
