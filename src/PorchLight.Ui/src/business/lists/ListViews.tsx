import { useState } from "react";
import { Popover } from "radix-ui";
import { ChevronDown, X } from "lucide-react";
import { useMutation } from "@tanstack/react-query";
import { findingsOf } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { boxLook } from "../../kit/fields";
import { menuLook } from "../../kit/menu";
import { Failure } from "../../kit/states";

interface Props<T> {
  views: { id: string; name: string; query: T }[];
  /** What stands for the list without any filter: "Everyone". */
  all: string;
  onOpen: (query: T | null) => void;
  /** Keeps what is shown under a name. */
  onKeep: (name: string) => Promise<unknown>;
  onRemove: (id: string) => Promise<unknown>;
}

/** Ways to look at a list under a name. */
export function ListViews<T>({ views, all, onOpen, onKeep, onRemove }: Props<T>) {
  const [name, setName] = useState("");
  const keep = useMutation({
    mutationFn: () => onKeep(name),
    onSuccess: () => {
      setName("");
    },
  });
  const remove = useMutation({ mutationFn: onRemove });
  return (
    <Popover.Root>
      <Popover.Trigger className={buttonLook("plain")}>
        Views <ChevronDown size={16} aria-hidden />
      </Popover.Trigger>
      <Popover.Content aria-label="Views" align="end" className={`${menuLook} w-80 max-w-[90vw] p-3`}>
        <ul className="grid gap-1">
          <li>
            <Popover.Close
              className="w-full rounded-soft px-2 py-1 text-left hover:bg-mist"
              onClick={() => onOpen(null)}
            >
              {all}
            </Popover.Close>
          </li>
          {views.map((view) => (
            <li key={view.id} className="flex items-center">
              <Popover.Close
                className="min-w-0 flex-1 truncate rounded-soft px-2 py-1 text-left hover:bg-mist"
                onClick={() => onOpen(view.query)}
              >
                {view.name}
              </Popover.Close>
              <button
                type="button"
                aria-label={`Remove the view ${view.name}`}
                className="rounded-soft p-1.5 text-slate hover:text-brick"
                onClick={() => remove.mutate(view.id)}
              >
                <X size={16} aria-hidden />
              </button>
            </li>
          ))}
        </ul>
        <form
          className="mt-2 flex gap-2 border-t border-line pt-3"
          onSubmit={(e) => {
            e.preventDefault();
            if (!keep.isPending) keep.mutate();
          }}
        >
          <input
            aria-label="Save this view as"
            placeholder="Save this view as …"
            className={boxLook}
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          <Button type="submit" disabled={keep.isPending}>
            Keep
          </Button>
        </form>
        {findingsOf(keep.error).size > 0 ? (
          <p className="mt-1 font-semibold text-brick">{[...findingsOf(keep.error).values()][0]}</p>
        ) : (
          <Failure error={keep.error ?? remove.error} />
        )}
      </Popover.Content>
    </Popover.Root>
  );
}
