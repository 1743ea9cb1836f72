import { useEffect, useRef, type ReactNode } from "react";
import { Button } from "../../kit/Button";
import { Failure } from "../../kit/states";
import { Clashes } from "./Clashes";
import type { useEdit } from "./useEdit";

interface Props {
  edit: Omit<ReturnType<typeof useEdit>, "now" | "change" | "saveNow">;
  nameOf: (place: string) => string;
  /** More to do beside saving. */
  beside?: ReactNode;
  children: ReactNode;
}

/** Fields that are kept when the person says so, with what is in the way. */
export function SavedForm({ edit, nameOf, beside, children }: Props) {
  const form = useRef<HTMLFormElement>(null);
  // Where something has to be put right, one goes on there.
  useEffect(() => {
    if (edit.error) form.current?.querySelector<HTMLElement>("[aria-invalid=true]")?.focus();
  }, [edit.error]);
  return (
    <form ref={form} onSubmit={edit.submit} noValidate className="rounded-soft bg-card p-6 shadow-soft">
      {children}
      <Clashes clashes={edit.clashes} nameOf={nameOf} onChoose={edit.choose} />
      {edit.clashes.length === 0 && edit.findings.size !== 1 && <Failure error={edit.error} />}
      <div className="mt-5 flex flex-wrap items-center gap-3">
        <Button weight="main" type="submit" disabled={edit.isSaving || edit.clashes.length > 0}>
          Save
        </Button>
        {beside}
        <span role="status" className="text-moss">
          {edit.wasSaved && "Saved."}
        </span>
      </div>
    </form>
  );
}
