import { createContext, useContext } from "react";
import type { Schemas } from "../../api/problem";
import type { WorkingForm } from "./form";

/** What every part of the workbench needs to know and may do. */
export interface Workbench {
  id: string;
  form: WorkingForm;
  facts: Schemas["FormFacts"];
  parts: Schemas["FormParts"];
  /** Changes the form; changes of one place in a row are one step to take back. Gives what takes this very change back. */
  edit: (make: (form: WorkingForm) => WorkingForm, place: string) => () => void;
  /** The form at this moment, also before it is on screen. */
  readForm: () => WorkingForm;
  /** The key of what the desk shows. */
  at: string;
  open: (key: string) => void;
  /** Worked-out values in words for the answers in the preview, by place. */
  workedOut: Readonly<Record<string, string>>;
}

export const WorkbenchContext = createContext<Workbench | null>(null);

export function useWorkbench(): Workbench {
  const workbench = useContext(WorkbenchContext);
  if (!workbench) throw new Error("This part stands outside of the workbench.");
  return workbench;
}
