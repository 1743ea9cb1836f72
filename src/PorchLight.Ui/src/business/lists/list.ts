import { useDeferredValue, useState } from "react";
import { keepPreviousData, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { ask, askByPages } from "../../api/ask";
import { api } from "../../api/client";
import { orProblem, type Schemas } from "../../api/problem";
import type { paths } from "../../api/schema";
import { useListState } from "./useListState";

type AddressesOf<P> = P extends `${infer A}/found` ? A : never;
type Json<T> = T extends { content: { "application/json": infer B } } ? B : never;
type Found<A extends ListAddress> = paths[`${A}/found`]["post"];

/** The lists there are, by their addresses. */
export type ListAddress = AddressesOf<keyof paths>;

/** What can be asked of a list; what is left out is as usual. */
export type QueryOf<A extends ListAddress> = Json<Found<A>["requestBody"]>["query"];

/** A row of a list. */
export type RowOf<A extends ListAddress> = Json<Found<A>["responses"][200]>["rows"][number];

/** What a list can be made of. */
export type ChoicesOf<A extends ListAddress> = Json<paths[`${A}/choices`]["get"]["responses"][200]>;

export interface Page<R> {
  total: number | null;
  groups: Schemas["ListGroup"][];
  rows: R[];
  next: string | null;
}

const atOnce = 100;

// Every list answers alike; one of them stands for all where a path has to be spelled out.
type One = "/api/clients";

const found = <A extends ListAddress>(address: A, query: QueryOf<A>, after: string | null, take: number) =>
  api.POST(`${address}/found` as `${One}/found`, {
    body: { query: query as QueryOf<One>, after, take },
  }) as Promise<{
    data?: Page<RowOf<A>>;
    response: Response;
    error?: unknown;
  }>;

/** Asks for the first rows that a list finds. */
export const askFirst = <A extends ListAddress>(address: A, query: QueryOf<A>, take: number) =>
  ask([address, query, take], () => found(address, query, null, take));

/** The identifiers of all rows a list finds. */
export const findAll = <A extends ListAddress>(address: A, query: QueryOf<A>) =>
  orProblem(api.POST(`${address}/all-found` as `${One}/all-found`, { body: query as QueryOf<One> })) as Promise<
    string[]
  >;

/** Keeps what a list shows under a name. */
export const keepView = <A extends ListAddress>(address: A, name: string, query: QueryOf<A>) =>
  orProblem(api.PUT(`${address}/views` as `${One}/views`, { body: { name, query: query as QueryOf<One> } }));

/** Takes a view away. */
export const removeView = (address: ListAddress, id: string) =>
  orProblem(api.DELETE(`${address}/views/{id}` as `${One}/views/{id}`, { params: { path: { id } } }));

/**
 * A list as a screen works with it: what it shows stands in the address, its rows come page by page.
 * @param address Where the server has it.
 * @param home Where the screen has it.
 */
export function useList<A extends ListAddress>(address: A, home: string) {
  const [query, setQuery] = useListState<QueryOf<A>>(home);
  const asked = useDeferredValue(query);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const choices = useQuery(ask([address, "choices"], () => api.GET(`${address}/choices` as `${One}/choices`, {})));
  const pages = useInfiniteQuery({
    ...askByPages(
      [address, asked],
      (after) => found(address, asked, after, atOnce),
      (last) => last.next ?? undefined,
    ),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const first = pages.data?.pages[0];
  return {
    address,
    home,
    query,
    asked,
    setQuery,
    choices: choices.data as ChoicesOf<A> | undefined,
    error: pages.error ?? choices.error,
    isPending: pages.isPending,
    rows: (pages.data?.pages.flatMap((page) => page.rows) ?? []) as RowOf<A>[],
    total: first?.total ?? 0,
    groups: first?.groups ?? [],
    hasMore: pages.hasNextPage,
    isAskingMore: pages.isFetchingNextPage,
    askMore: pages.fetchNextPage,
    chosen,
    setChosen,
  };
}

export type List<A extends ListAddress> = ReturnType<typeof useList<A>>;

/** What can be said of a query whatever its list. */
export interface AnyQuery {
  words?: string;
  order?: string;
  backwards?: boolean;
  columns?: string[];
  filters?: Schemas["FieldFilter"][];
}

/** How many filters are set, beside the words that are searched for. */
export const filtersSet = (query: object) => {
  const { words: _, order: __, backwards: ___, columns: ____, filters, ...others } = query as AnyQuery;
  return Object.keys(others).length + (filters?.length ?? 0);
};

/** Whether nothing is filtered away, whatever the order. */
export const isWhole = (query: object) => !(query as AnyQuery).words?.trim() && filtersSet(query) === 0;

/** The same list with nothing filtered away; its order and columns stay. */
export function whole<Q extends object>(query: Q): Q {
  const { order, backwards, columns } = query as AnyQuery;
  return { ...(order && { order }), ...(backwards && { backwards }), ...(columns && { columns }) } as Q;
}
