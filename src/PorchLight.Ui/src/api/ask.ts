import { infiniteQueryOptions, queryOptions, type Query, type QueryClient, type QueryKey } from "@tanstack/react-query";
import { orProblem } from "./problem";

type Answer<T> = Promise<{ data?: T; response: Response; error?: unknown }>;

/** The areas that each answer on screen was made of, as the server said with it. */
const madeOf = new WeakMap<Query, string[]>();

/** Asks the server, and remembers what the answer was made of. */
async function heard<T>(queries: QueryClient, queryKey: QueryKey, asking: Answer<T>): Promise<T> {
  const data = await orProblem(asking);
  const areas = (await asking).response.headers.get("Made-Of")?.split(" ") ?? [];
  const query = queries.getQueryCache().find({ queryKey, exact: true });
  if (query) madeOf.set(query, [...(madeOf.get(query) ?? []), ...areas]);
  return data;
}

/**
 * What a screen asks of the server. When something changes of which the answer was made, it is asked again.
 * @param queryKey What it is remembered under.
 * @param get Sends the request.
 */
export const ask = <T>(queryKey: QueryKey, get: (signal: AbortSignal) => Answer<T>) =>
  queryOptions({ queryKey, queryFn: ({ client, signal }) => heard(client, queryKey, get(signal)) });

/**
 * The same of what never changes, and of what is being edited: what happens elsewhere does not take it away, for saving finds that out.
 */
export const askOnce = <T>(queryKey: QueryKey, get: (signal: AbortSignal) => Answer<T>) => ({
  ...ask(queryKey, get),
  meta: { isAskedOnce: true },
});

/**
 * The same by pages.
 * @param get Sends the request for the page behind a place; null for the first one.
 * @param next Behind which place the page after the last one stands; undefined for no more.
 */
export const askByPages = <T>(
  queryKey: QueryKey,
  get: (after: string | null, signal: AbortSignal) => Answer<T>,
  next: (last: T) => string | undefined,
) =>
  infiniteQueryOptions({
    queryKey,
    queryFn: ({ client, pageParam, signal }) => heard(client, queryKey, get(pageParam, signal)),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => next(last),
  });

/**
 * Asks again for what was made of one of these areas, and for what never said what it is made of.
 * @param areas Null for all of them.
 */
export const askAgain = (queries: QueryClient, areas: string[] | null) =>
  queries.invalidateQueries({
    predicate: (query) =>
      query.meta?.["isAskedOnce"] !== true &&
      (areas === null || (madeOf.get(query)?.some((area) => areas.includes(area)) ?? true)),
  });
