import { useEffect } from "react";

/** Names the window after what is on screen. */
export function useTitle(title: string | undefined): void {
  useEffect(() => {
    document.title = title ? `${title}, Porch Light` : "Porch Light";
  }, [title]);
}
