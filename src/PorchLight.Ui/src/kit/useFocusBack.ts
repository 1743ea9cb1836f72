import { useEffect, useRef } from "react";

/**
 * For a button in whose place something opens: when that closes and takes the focus with it, one goes on at the button.
 * @param isOpen Whether it is open.
 * @returns The button's ref.
 */
export function useFocusBack(isOpen: boolean) {
  const button = useRef<HTMLButtonElement>(null);
  const was = useRef(isOpen);
  useEffect(() => {
    if (was.current && !isOpen && document.activeElement === document.body) button.current?.focus();
    was.current = isOpen;
  }, [isOpen]);
  return button;
}
