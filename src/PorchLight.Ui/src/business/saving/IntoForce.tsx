import { Dialog, DialogClose } from "../../kit/Dialog";
import { useState, type ReactNode } from "react";
import { Button } from "../../kit/Button";

interface Props {
  /** What is to be said beside "Not in force yet". */
  children: ReactNode;
  /** What lets go of what is worked on; null where there is nothing to go back to. */
  back: { words: string; busy: boolean; onPress: () => void } | null;
  title: string;
  about: string;
  /** What changes, a sentence each. */
  changes: string[];
  /** What has to be put right first, a sentence each. */
  problems: string[];
  /** What the button says that does it. */
  act: string;
  busy: boolean;
  /** Does it; the dialog closes however that ends. */
  onAct: (done: () => void) => void;
}

/** What is worked on is not in force: what it changes is said first, and one press puts it there. */
export function IntoForce({ children, back, title, about, changes, problems, act, busy, onAct }: Props) {
  const [asking, setAsking] = useState(false);
  return (
    <div className="sticky bottom-0 z-10 mt-3 flex flex-wrap items-center gap-x-4 gap-y-2 rounded-t-soft border border-edge bg-card px-4 py-3 shadow-panel">
      <p className="min-w-0 flex-1">
        <strong>Not in force yet.</strong> {children}
      </p>
      {back && (
        <Button weight="quiet" disabled={back.busy} onClick={back.onPress}>
          {back.words}
        </Button>
      )}
      <Dialog
        open={asking}
        onOpenChange={setAsking}
        trigger={<Button weight="main">Put it into force …</Button>}
        title={title}
        about={about}
      >
        <ul className="mb-4 list-disc pl-5">
          {changes.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
        {problems.map((words) => (
          <p key={words} role="alert" className="mb-2 font-semibold text-brick">
            {words}
          </p>
        ))}
        <div className="mt-4 flex gap-2">
          <Button weight="main" disabled={busy || problems.length > 0} onClick={() => onAct(() => setAsking(false))}>
            {act}
          </Button>
          <DialogClose asChild>
            <Button>Not yet</Button>
          </DialogClose>
        </div>
      </Dialog>
    </div>
  );
}
