import { useEffect, useEffectEvent, type RefObject } from "react";

/**
 * The keys of whoever writes a message: Esc puts it off and leaves the panel open, Ctrl+Enter sends it from wherever one writes.
 * @param form Where it is written.
 */
export function useWritingKeys(form: RefObject<HTMLFormElement | null>, onSend: () => void, onLater: () => void) {
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    const sends = event.key === "Enter" && (event.ctrlKey || event.metaKey);
    if (event.defaultPrevented || !(sends || event.key === "Escape")) return;
    event.preventDefault();
    event.stopPropagation();
    if (sends) onSend();
    else onLater();
  });
  useEffect(() => {
    const written = form.current;
    const listen = (event: KeyboardEvent) => onKey(event);
    written?.addEventListener("keydown", listen);
    return () => written?.removeEventListener("keydown", listen);
  }, [form]);
}
