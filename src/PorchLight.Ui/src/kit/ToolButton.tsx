import type { ReactNode } from "react";

interface Props {
  label: string;
  off: boolean;
  onClick: () => void;
  icon: ReactNode;
}

/** A button that shows only its picture, and says what it does to whoever cannot tell. */
export const ToolButton = ({ label, off, onClick, icon }: Props) => (
  <button
    type="button"
    aria-label={label}
    title={label}
    aria-disabled={off || undefined}
    className="rounded-soft p-1.5 text-dusk hover:bg-card aria-disabled:opacity-40"
    onClick={() => !off && onClick()}
  >
    {icon}
  </button>
);
