import { Dialog, DialogClose } from "../../kit/Dialog";
import { useEffect, useState } from "react";
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
    <Dialog open={open} onOpenChange={setOpen} title="Keys">
      <Keys title="Everywhere" keys={everywhere} />
      {letters.length > 0 && <Keys title="Here" keys={letters.map((one) => [one.letter, one.words])} />}
      <DialogClose asChild>
        <Button className="mt-4">Close</Button>
      </DialogClose>
    </Dialog>
  );
}

function Keys({ title, keys }: { title: string; keys: [string, string][] }) {
  return (
    <section className="mt-3">
      <h3 className="mb-1 text-section">{title}</h3>
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
