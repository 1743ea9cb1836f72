import type { Schemas } from "../api/problem";

type Typeface = Schemas["Typeface"];

interface Face {
  name: string;
  family: string;
  /** Whether its zero reads as one of a code, and another stands for it. */
  hasSlashedZero?: true;
  load: () => Promise<unknown>;
}

/** The typefaces a business can choose from; each is fetched only where it is used. */
export const faces: Record<Typeface, Face> = {
  hyperlegible: {
    name: "Atkinson Hyperlegible, plain and clear",
    family: "Atkinson Hyperlegible Next Variable",
    hasSlashedZero: true,
    load: () => import("@fontsource-variable/atkinson-hyperlegible-next"),
  },
  bricolage: {
    name: "Bricolage Grotesque, lively",
    family: "Bricolage Grotesque Variable",
    load: () => import("@fontsource-variable/bricolage-grotesque"),
  },
  figtree: {
    name: "Figtree, round and friendly",
    family: "Figtree Variable",
    load: () => import("@fontsource-variable/figtree"),
  },
  literata: {
    name: "Literata, a book face",
    family: "Literata Variable",
    load: () => import("@fontsource-variable/literata"),
  },
  lora: {
    name: "Lora, a brushed serif",
    family: "Lora Variable",
    load: () => import("@fontsource-variable/lora"),
  },
  fraunces: {
    name: "Fraunces, old-fashioned and soft",
    family: "Fraunces Variable",
    load: () => import("@fontsource-variable/fraunces"),
  },
  spaceGrotesk: {
    name: "Space Grotesk, wide and technical",
    family: "Space Grotesk Variable",
    load: () => import("@fontsource-variable/space-grotesk"),
  },
  nunito: {
    name: "Nunito, with round ends",
    family: "Nunito Variable",
    load: () => import("@fontsource-variable/nunito"),
  },
};

/** Fetches a typeface and gives the family to name in a style. */
export async function loadFace(typeface: Typeface): Promise<string> {
  const { family, hasSlashedZero, load } = faces[typeface];
  await load();
  return `${hasSlashedZero ? '"Plain Zero", ' : ""}"${family}", system-ui, sans-serif`;
}
