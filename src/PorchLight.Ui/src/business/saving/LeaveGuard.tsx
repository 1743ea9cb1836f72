import { Dialog } from "../../kit/Dialog";
import { useEffect, useRef } from "react";
import { useBlocker } from "react-router";
import { Button } from "../../kit/Button";
import { useGuardState } from "./guardedEdits";

/** Asks before something that is not saved is left behind; what is being saved is waited for. One for all edits of a page. */
export function LeaveGuard() {
  const edits = useGuardState();
  const unsaved = edits !== "saved";
  const leaving = useBlocker(
    ({ currentLocation, nextLocation }) => unsaved && currentLocation.pathname !== nextLocation.pathname,
  );
  useEffect(() => {
    if (!unsaved) return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener("beforeunload", warn);
    return () => removeEventListener("beforeunload", warn);
  }, [unsaved]);
  // The question is gone with its dialog; who stays is back at what they pressed, or at the screen.
  const asked = useRef<Element | null>(null);
  const blocked = leaving.state === "blocked";
  useEffect(() => {
    if (blocked) return;
    const back = asked.current as HTMLElement | null;
    asked.current = null;
    if (back && document.activeElement === document.body)
      (back.isConnected ? back : document.getElementById("content"))?.focus();
  }, [blocked]);
  useEffect(() => {
    if (leaving.state === "blocked" && !unsaved) leaving.proceed();
  }, [leaving, unsaved]);
  if (leaving.state !== "blocked" || edits === "saving") return null;
  return (
    <Dialog
      open
      onOpenChange={() => leaving.reset()}
      onOpenAutoFocus={() => (asked.current ??= document.activeElement)}
      width="narrow"
      title="Not saved yet"
      about="What you changed here is lost when you leave."
    >
      <div className="flex gap-2">
        <Button weight="main" onClick={() => leaving.reset()}>
          Stay here
        </Button>
        <Button onClick={() => leaving.proceed()}>Leave without saving</Button>
      </div>
    </Dialog>
  );
}
