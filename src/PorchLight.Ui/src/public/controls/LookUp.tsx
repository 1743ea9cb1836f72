import { useCombobox } from "downshift";
import { useEffect, useState } from "react";
import { lookUp } from "../client";
import type { FoundLine } from "../views";
import { useQuestionContext } from "../questionContext";
import { answerOf, box, type ControlProps } from "./control";

const debounceMs = 150;

/** Type a few letters, choose from the list. */
export default function LookUp({ id, place, placeholder, answer, onChange, described }: ControlProps<"lookUp">) {
  const desk = useQuestionContext();
  const chosen = answerOf(answer, "lookUp");
  const [typed, setTyped] = useState<string | null>(null);
  const [found, setFound] = useState<FoundLine[] | null>(null);

  useEffect(() => {
    if (!typed?.trim()) return;
    const abort = new AbortController();
    const timer = setTimeout(() => {
      lookUp(desk, place, typed, abort.signal).then(setFound, () => {}); // The next letter asks again.
    }, debounceMs);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  }, [desk, place, typed]);

  const { isOpen, getInputProps, getMenuProps, getItemProps, highlightedIndex } = useCombobox<FoundLine>({
    id: `${id}-list`,
    inputId: id,
    items: found ?? [],
    itemToString: (line) => line?.columns[0] ?? "",
    initialInputValue: chosen?.columns?.[0] ?? chosen?.key ?? "",
    onInputValueChange: ({ inputValue, type }) => {
      if (type !== useCombobox.stateChangeTypes.InputChange) return;
      setTyped(inputValue);
      if (!inputValue.trim()) setFound(null);
      if (chosen) onChange(undefined);
    },
    onSelectedItemChange: ({ selectedItem }) =>
      onChange(selectedItem ? { kind: "lookUp", key: selectedItem.key, columns: selectedItem.columns } : undefined),
  });
  const open = isOpen && found !== null;
  // What is typed and not chosen is no answer; that is said, and not found out after sending.
  const unchosen = !open && !chosen && !!typed?.trim();

  return (
    <div className="relative">
      <input
        {...getInputProps({ ...described, "aria-label": undefined, "aria-labelledby": undefined })}
        className={box}
        placeholder={placeholder ?? undefined}
        autoComplete="off"
      />
      <ul
        {...getMenuProps({ "aria-labelledby": undefined, "aria-label": "What fits" })}
        className={
          open
            ? "absolute z-10 mt-1 max-h-72 w-full overflow-auto rounded-soft border border-edge bg-card shadow-soft"
            : ""
        }
      >
        {open &&
          found.map((line, index) => (
            <li
              key={line.key}
              {...getItemProps({ item: line, index })}
              className={`min-h-11 cursor-pointer px-3 py-2 ${highlightedIndex === index ? "bg-[var(--brand)] text-card" : ""}`}
            >
              {line.columns[0]}
              {line.columns.length > 1 && <span className="block text-note">{line.columns.slice(1).join(", ")}</span>}
            </li>
          ))}
      </ul>
      <p role="status" className={unchosen ? "mt-1 border-l-4 border-edge pl-2" : "sr-only"}>
        {unchosen && "This has not been chosen from the list, so it is not sent. Please choose a line, or clear it."}
      </p>
      <p role="status" className={open && found.length === 0 ? "mt-1 text-slate" : "sr-only"}>
        {open && (found.length === 0 ? "Nothing on the list fits. Try fewer letters." : `${found.length} fit.`)}
      </p>
    </div>
  );
}
