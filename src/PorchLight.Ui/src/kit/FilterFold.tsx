import { SlidersHorizontal } from "lucide-react";
import { useId, useState, type ReactNode } from "react";
import { Button } from "./Button";

interface Props {
  /** How many filters are set, for whom they are folded away. */
  count: number;
  children: ReactNode;
}

/** What a list is filtered and put in order by: in a line where there is room, behind one button on a phone. */
export function FilterFold({ count, children }: Props) {
  const [isOpen, setOpen] = useState(false);
  const id = useId();
  return (
    <>
      <Button className="sm:hidden" aria-expanded={isOpen} aria-controls={id} onClick={() => setOpen(!isOpen)}>
        <SlidersHorizontal size={16} aria-hidden /> Filters{count > 0 && ` (${count})`}
      </Button>
      <span id={id} className={`${isOpen ? "flex" : "hidden"} flex-wrap items-center gap-2 sm:contents`}>
        {children}
      </span>
    </>
  );
}
