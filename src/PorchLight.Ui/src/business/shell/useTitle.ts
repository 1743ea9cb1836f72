import { useEffect } from "react";

let title = "Porch Light";
let news = 0;

const show = () => {
  document.title = news > 0 ? `(${news}) ${title}` : title;
};

/** Names the window after what is on screen: undefined while that is not known, null where what stands beside it says so. */
export function useTitle(words: string | undefined | null): void {
  useEffect(() => {
    if (words === null) return;
    title = words ? `${words}, Porch Light` : "Porch Light";
    show();
  }, [words]);
}

/** Says in the name of the window how much rang that was not looked at, so that it is seen from another one. */
export function useNewsInTitle(count: number): void {
  useEffect(() => {
    news = count;
    show();
  }, [count]);
}
