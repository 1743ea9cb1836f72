import { useEffect, useMemo, useState } from "react";
import { useLocation, useNavigationType, useSearchParams } from "react-router";
import { listParameter } from "../../kit/listAddress";

// Says of an entry of the history that the list itself wrote it.
const byTheList = { replace: true, state: { byTheList: true } };

/**
 * What a list shows, and how, as it stands in its address: it can be kept, sent, reloaded and gone back to. Beside an open panel it stays,
 * wherever the panel leads; the list's own address without it is the whole list.
 * @param home The address of the list alone.
 */
export function useListState<Q extends object>(home: string) {
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

  const query = useMemo(() => read(text) as Q, [text]);
  const set = (next: Q) => {
    const said = Object.entries(next).filter(([, value]) => isSaid(value));
    const shown = said.length > 0 ? JSON.stringify(Object.fromEntries(said)) : null;
    setText(shown);
    write(shown);
  };
  return [query, set] as const;
}

// What is empty or off is as usual, and need not be said.
const isSaid = (value: unknown) =>
  Array.isArray(value) ? value.length > 0 : value !== undefined && value !== "" && value !== false;

// An address can be written by hand; what is nothing a list can be asked is left out.
function read(text: string | null): object {
  try {
    const given: unknown = JSON.parse(text ?? "{}");
    if (typeof given !== "object" || given === null || Array.isArray(given)) return {};
    return Object.fromEntries(Object.entries(given).filter(([, value]) => isSaid(value) && isAskable(value)));
  } catch {
    return {};
  }
}

const isAskable = (value: unknown) => typeof value === "string" || value === true || Array.isArray(value);
