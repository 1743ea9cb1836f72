import { useEffect, useMemo, useState } from "react";
import { useLocation, useNavigationType, useSearchParams } from "react-router";
import { listParameter } from "../../kit/listAddress";

// Says of an entry of the history that the list itself wrote it.
const byTheList = { replace: true, state: { byTheList: true } };

/**
 * What a list shows, and how, as it stands in its address: it can be kept, sent, reloaded and gone back to. Beside an open panel it stays,
 * wherever the panel leads; the list's own address without it is the whole list.
 * @param home The address of the list alone.
 * @param whole What the whole list shows; the address holds only what differs.
 */
export function useListState<Q extends object>(home: string, whole: Q) {
  const { pathname, key, state } = useLocation();
  const way = useNavigationType();
  const [search, setSearch] = useSearchParams();
  const written = search.get(listParameter);
  const isHome = pathname === home;
  const [text, setText] = useState(written);
  const [seen, setSeen] = useState(key);
  if (key !== seen) {
    setSeen(key);
    // The address comes behind what is typed, so what the list wrote there itself says nothing new.
    const isOwn = way === "REPLACE" && (state as { byTheList?: boolean } | null)?.byTheList;
    if (!isOwn && (written !== null || isHome)) setText(written);
  }

  const write = (next: string | null) =>
    setSearch((before) => {
      if (next === null) before.delete(listParameter);
      else before.set(listParameter, next);
      return before;
    }, byTheList);
  const isLost = text !== null && written === null && !isHome;
  useEffect(() => {
    if (isLost) write(text);
  });

  const query = useMemo(() => read(whole, text), [whole, text]);
  const set = (next: Q) => {
    const differs = Object.entries(next).filter(
      ([name, value]) => JSON.stringify(value) !== JSON.stringify(whole[name as keyof Q]),
    );
    const shown = differs.length > 0 ? JSON.stringify(Object.fromEntries(differs)) : null;
    setText(shown);
    write(shown);
  };
  return [query, set] as const;
}

// An address can be written by hand; what is of another shape is left out.
const isLike = (one: unknown, other: unknown) =>
  typeof one === typeof other && Array.isArray(one) === Array.isArray(other);

function read<Q extends object>(whole: Q, text: string | null): Q {
  try {
    const given = Object.entries(JSON.parse(text ?? "{}") as object);
    return { ...whole, ...Object.fromEntries(given.filter(([name, value]) => isLike(whole[name as keyof Q], value))) };
  } catch {
    return whole;
  }
}
