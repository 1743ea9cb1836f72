import { useEffect, useState } from "react";
import { Dialog } from "radix-ui";
import { useShownLetters } from "../../kit/letters";
import { Button } from "../../kit/Button";

const everywhere: [string, string][] = [
  ["Alt J", "Go anywhere, find anyone"],
  ["Alt H", "Show all keys"],
  ["↑ ↓", "To the next row, also while one is open"],
  ["Enter", "Open the row"],
  ["Esc", "Close what is open"],
];

/** All keys there are, by Alt+H. */
export function AllKeys() {
  const [open, setOpen] = useState(false);
  const letters = useShownLetters();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!event.altKey || event.ctrlKey || event.metaKey || event.code !== "KeyH") return;
      event.preventDefault();
      setOpen((now) => !now);
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, []);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/60" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-[12vh] left-1/2 z-50 max-h-[76vh] w-lg max-w-[94vw] -translate-x-1/2 overflow-y-auto rounded-soft bg-card p-7 shadow-panel"
        >
          <Dialog.Title className="mb-3 text-xl">Keys</Dialog.Title>
          <Keys title="Everywhere" keys={everywhere} />
          {letters.length > 0 && <Keys title="Here" keys={letters.map((one) => [one.letter, one.words])} />}
          <Dialog.Close asChild>
            <Button className="mt-4">Close</Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Keys({ title, keys }: { title: string; keys: [string, string][] }) {
  return (
    <section className="mt-3">
      <h3 className="mb-1 text-[1.07rem]">{title}</h3>
      <dl className="grid grid-cols-[5rem_minmax(0,1fr)] gap-y-1">
        {keys.map(([key, words]) => (
          <div key={key} className="contents">
            <dt className="font-semibold">{key}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
