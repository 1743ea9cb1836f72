import { Fragment, useEffect, useRef, type ReactNode } from "react";
import { useMutation } from "@tanstack/react-query";
import { findingsOf } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { Rows } from "../../kit/Rows";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { findAll, isWhole, whole, type List, type ListAddress, type RowOf } from "./list";
import { ListFilters } from "./ListFilters";

interface Props<A extends ListAddress> {
  list: List<A>;
  /** What one of its rows is called, and many behind their number. */
  one: string;
  many: string;
  /** Where the words are searched for: "Search everything". */
  search: string;
  /** What stands for the list without any filter: "Everyone". */
  all: string;
  /** What is said while there is nothing at all. */
  empty: ReactNode;
  /** The row whose panel is open. */
  open?: string;
  /** The group a row stands in, where the list is in order of its groups. */
  groupOf?: (row: RowOf<A>) => string;
  /** What stands over the rows. */
  head?: ReactNode;
  /** What is done with several at once; without it none can be chosen. */
  withSeveral?: (ids: string[]) => ReactNode;
  /** What is shown in place of the rows. */
  instead?: ReactNode;
  /** What stands before a group, by its name, and after the last one where no such group is there. */
  beside?: { group: string; shown: ReactNode };
  children: (row: RowOf<A>, choose: (label: string) => ReactNode) => ReactNode;
}

/** A list from its filters down: what is done with several, its rows in their groups, and more of them as one goes on. */
export function ListBody<A extends ListAddress>(props: Props<A>) {
  const { list, open, groupOf, withSeveral, instead, beside, children } = props;
  const findings = findingsOf(list.error);
  const groups = groupOf
    ? list.groups
        .map((group) => ({ ...group, rows: list.rows.filter((row) => groupOf(row) === group.name) }))
        .filter((group) => group.rows.length > 0)
    : [{ name: "", words: "", count: list.total, rows: list.rows }];
  if (list.asked && "backwards" in list.asked && list.asked.backwards) groups.reverse();
  const besideHere = beside && isWhole(list.asked) && !list.isPending ? beside : undefined;
  const chosenHere = [...list.chosen];
  const choose = (id: string) => (label: string) => (
    <label className="flex size-11 shrink-0 items-center justify-center">
      <input
        type="checkbox"
        aria-label={`Choose ${label}`}
        className="size-[1.15rem] accent-dusk"
        checked={list.chosen.has(id)}
        onChange={(e) => {
          const next = new Set(list.chosen);
          if (e.target.checked) next.add(id);
          else next.delete(id);
          list.setChosen(next);
        }}
      />
    </label>
  );
  return (
    <>
      <ListFilters list={list} search={props.search} all={props.all} findings={findings} />
      {withSeveral && chosenHere.length > 0 && <Several list={list}>{withSeveral(chosenHere)}</Several>}
      {findings.size === 0 && list.error && (
        <>
          <Failure error={list.error} />
          {!isWhole(list.query) && <ShowAll list={list} />}
        </>
      )}
      {list.isPending && <Skeleton />}
      {instead}
      {!instead && !list.isPending && !list.error && list.rows.length === 0 && (
        <Empty>
          {isWhole(list.asked) ? (
            props.empty
          ) : (
            <>
              No {props.one} is found like that. <ShowAll list={list} />
            </>
          )}
        </Empty>
      )}
      {!instead && list.rows.length > 0 && (
        <>
          {!groupOf && (
            <p role="status" className="mb-1 text-slate">
              {list.total === 1 ? `One ${props.one}` : `${list.total.toLocaleString("en")} ${props.many}`}
            </p>
          )}
          {props.head}
          {groups.map((group) => (
            <Fragment key={group.name}>
              {besideHere?.group === group.name && besideHere.shown}
              <section aria-label={group.words || undefined} className={groupOf ? "mb-6" : ""}>
                {groupOf && (
                  <h2 className="mb-2 text-section">
                    {group.words}, {group.count.toLocaleString("en")}
                  </h2>
                )}
                <Rows rows={group.rows} keyOf={(row) => row.id} open={open}>
                  {(row) => children(row, withSeveral ? choose(row.id) : () => null)}
                </Rows>
              </section>
            </Fragment>
          ))}
        </>
      )}
      {besideHere && !groups.some((group) => group.name === besideHere.group) && besideHere.shown}
      {!instead && list.hasMore && <More list={list} />}
    </>
  );
}

const ShowAll = <A extends ListAddress>({ list }: { list: List<A> }) => (
  <Button weight="quiet" onClick={() => list.setQuery(whole(list.query))}>
    Show all
  </Button>
);

/** Several that were chosen, and what can be done with them. */
function Several<A extends ListAddress>({ list, children }: { list: List<A>; children: ReactNode }) {
  const all = useMutation({
    mutationFn: () => findAll(list.address, list.asked),
    onSuccess: (found) => list.setChosen(new Set(found)),
  });
  return (
    <div
      role="group"
      aria-label="With the selection"
      className="mb-3 flex flex-wrap items-center gap-2 rounded-soft bg-glow px-3 py-2"
    >
      <strong>{list.chosen.size.toLocaleString("en")} chosen</strong>
      {list.chosen.size < list.total && (
        <Button weight="quiet" disabled={all.isPending} onClick={() => all.mutate()}>
          Choose all {list.total.toLocaleString("en")}
        </Button>
      )}
      <Button weight="quiet" onClick={() => list.setChosen(new Set())}>
        Choose none
      </Button>
      {children}
      <Failure error={all.error} />
    </div>
  );
}

/** Asks for more rows when one has come to the last ones, or presses. */
function More<A extends ListAddress>({ list }: { list: List<A> }) {
  const end = useRef<HTMLParagraphElement>(null);
  const { isAskingMore, askMore } = list;
  useEffect(() => {
    const seen = new IntersectionObserver((entries) => {
      if (entries.some((entry) => entry.isIntersecting) && !isAskingMore) void askMore();
    });
    seen.observe(end.current!);
    return () => seen.disconnect();
  }, [isAskingMore, askMore]);
  return (
    <p ref={end} className="mt-3">
      <Button disabled={isAskingMore} onClick={() => void askMore()}>
        Show more of {list.total.toLocaleString("en")}
      </Button>
    </p>
  );
}

/** Saves what a list shows as a file. */
export function SaveList<A extends ListAddress>({ list, as = "csv" }: { list: List<A>; as?: "csv" | "vcf" }) {
  if (list.total === 0) return null;
  return (
    <a
      className={buttonLook("plain")}
      href={`${list.address}.${as}?query=${encodeURIComponent(JSON.stringify(list.query))}`}
      download
    >
      {as === "csv" ? "Save as CSV" : "Save as vCard"}
    </a>
  );
}
