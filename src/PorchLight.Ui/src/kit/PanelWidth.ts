import { createContext } from "react";

/** Whether a panel takes the whole width, and how to change that; null where there is no choice. */
export const PanelWidth = createContext<{ isWide: boolean; setWide: (on: boolean) => void } | null>(null);
