import { createContext, useContext } from "react";
import type { Schemas } from "../../api/problem";
import type { WorkingForm } from "./form";

/** What every part of the workbench may do; it stays the same while one types. */
export interface WorkbenchActions {
  id: string;
  parts: Schemas["FormParts"];
  /** Changes the form; changes of one place in a row are one step to take back. Gives what takes this very change back. */
  edit: (make: (form: WorkingForm) => WorkingForm, place: string) => () => void;
  /** The form at this moment, also before it is on screen. */
  readForm: () => WorkingForm;
  /** Puts what has the key on the desk. */
  open: (key: string) => void;
}

/** What every part of the workbench needs to know, beside what it may do. */
export interface Workbench extends WorkbenchActions {
  form: WorkingForm;
  facts: Schemas["FormFacts"];
  /** The key of what the desk shows. */
  at: string;
  /** Worked-out values in words for the answers in the preview, by place. */
  workedOut: Readonly<Record<string, string>>;
}

export const ActionsContext = createContext<WorkbenchActions | null>(null);
export const WorkbenchContext = createContext<Workbench | null>(null);

const outside = "This part stands outside of the workbench.";

export function useWorkbench(): Workbench {
  const workbench = useContext(WorkbenchContext);
  if (!workbench) throw new Error(outside);
  return workbench;
}

/** For parts that need not be drawn anew with every letter. */
export function useActions(): WorkbenchActions {
  const actions = useContext(ActionsContext);
  if (!actions) throw new Error(outside);
  return actions;
}
