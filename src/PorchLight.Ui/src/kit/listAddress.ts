import { useLocation } from "react-router";

/** What the address of a station calls that which its list shows. */
export const listParameter = "list";

/** Gives addresses of the same station with what its list shows, so that whoever opens or closes a panel finds the list as it was. */
export function useListAddress() {
  const list = new URLSearchParams(useLocation().search).get(listParameter);
  return (address: string) =>
    list === null
      ? address
      : `${address}${address.includes("?") ? "&" : "?"}${new URLSearchParams({ [listParameter]: list })}`;
}
