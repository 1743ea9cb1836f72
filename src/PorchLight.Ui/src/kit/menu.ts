/** How menus and other things that float over the page look. */
export const menuLook = "z-30 rounded-soft border border-line bg-card text-ink shadow-panel";

export const menuItem = "flex cursor-pointer items-center rounded-soft px-3 py-2 outline-none data-highlighted:bg-mist";
