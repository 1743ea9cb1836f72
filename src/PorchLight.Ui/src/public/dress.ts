import type { Schemas } from "../api/problem";
import { loadFace } from "../kit/faces";

/** Puts on the colours, shapes and typeface of the business or the form; words are there before the face is. */
export function dress(look: Schemas["ShownLook"]) {
  const { style, dataset } = document.documentElement;
  const { corners, density, width, paper } = look;
  Object.assign(dataset, { corners, density, width, paper });
  style.setProperty("--brand", look.accent);
  style.setProperty("--backdrop", look.backdrop);
  void loadFace(look.typeface).then((family) => {
    style.setProperty("--font-body", family);
    style.setProperty("--font-head", family);
  });
}
