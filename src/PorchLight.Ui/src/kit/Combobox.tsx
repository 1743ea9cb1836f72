import type { InputHTMLAttributes, ReactNode } from "react";
import { useCombobox } from "downshift";

interface Props<T> {
  /** The identifier of the box, where a label names it. */
  id?: string;
  /** What the list is called. */
  listLabel: string;
  /** What fits what is typed, in order; null while that is not known. */
  items: T[] | null;
  keyOf: (item: T) => string;
  /** What stands in the box once it is chosen. */
  wordsOf: (item: T) => string;
  /** What stands in the box at the beginning. */
  initialWords?: string;
  onType: (words: string) => void;
  onChoose: (item: T) => void;
  /** Whether the list stands below the box all the time, its first line chosen; else it floats over the page while one types. */
  isAlwaysOpen?: boolean;
  box: InputHTMLAttributes<HTMLInputElement>;
  rowLook: (isNext: boolean) => string;
  row: (item: T) => ReactNode;
  /** What is said below the list, by whether it is open. */
  says?: (isOpen: boolean) => ReactNode;
}

/** A box in which a few letters find what can be chosen, by keyboard or mouse. */
export function Combobox<T>({
  id,
  listLabel,
  items,
  keyOf,
  wordsOf,
  initialWords = "",
  onType,
  onChoose,
  isAlwaysOpen = false,
  box,
  rowLook,
  row,
  says,
}: Props<T>) {
  const { isOpen, getInputProps, getMenuProps, getItemProps, highlightedIndex } = useCombobox<T>({
    ...(id ? { id: `${id}-list`, inputId: id } : {}),
    ...(isAlwaysOpen ? { isOpen: true, defaultHighlightedIndex: 0 } : {}),
    items: items ?? [],
    itemToString: (item) => (item === null ? "" : wordsOf(item)),
    initialInputValue: initialWords,
    onInputValueChange: ({ inputValue, type }) => {
      if (type === useCombobox.stateChangeTypes.InputChange) onType(inputValue);
    },
    onSelectedItemChange: ({ selectedItem }) => {
      if (selectedItem) onChoose(selectedItem);
    },
  });
  const isShown = isOpen && items !== null;
  const floating =
    "absolute z-10 mt-1 max-h-72 w-full overflow-auto rounded-soft border border-edge bg-card shadow-soft";
  const standing = "mt-2 max-h-[60dvh] overflow-y-auto";
  return (
    <div className="relative">
      <input {...getInputProps({ ...box, "aria-labelledby": undefined })} autoComplete="off" />
      <ul
        {...getMenuProps({ "aria-labelledby": undefined, "aria-label": listLabel })}
        className={isAlwaysOpen ? standing : isShown ? floating : ""}
      >
        {isShown &&
          items.map((item, index) => (
            <li key={keyOf(item)} {...getItemProps({ item, index })} className={rowLook(index === highlightedIndex)}>
              {row(item)}
            </li>
          ))}
      </ul>
      {says?.(isShown)}
    </div>
  );
}
