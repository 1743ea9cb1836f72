import { DropdownMenu } from "radix-ui";
import { X } from "lucide-react";
import { orProblem, type Schemas } from "../../api/problem";
import { CheckItem, Menu } from "../../kit/CheckMenu";
import { boxLook, controlLook } from "../../kit/fields";
import { FilterFold } from "../../kit/FilterFold";
import { OrderBox } from "../../kit/OrderBox";
import { menuItem } from "../../kit/menu";
import { api } from "../../api/client";
import { ListViews } from "../lists/ListViews";
import { everybody, filtersSet, type ClientQuery } from "./clientQuery";
import { standings, standingWords } from "./standings";

type Parts = Schemas["ClientListParts"];
type Test = Schemas["FieldTest"];

const testWords: Record<Test, string> = {
  contains: "contains",
  is: "is",
  atLeast: "is at least",
  atMost: "is at most",
  isFilled: "is filled in",
  isEmpty: "is empty",
};
const dayWords: Partial<Record<Test, string>> = { atLeast: "is not before", atMost: "is not after" };

interface Props {
  parts: Parts;
  query: ClientQuery;
  onChange: (query: ClientQuery) => void;
  /** What is wrong with it, by its parts. */
  findings: Map<string, string>;
}

/** What the list shows: words, standing, tags, fields; the columns; the order; and views that were kept. */
export function ClientFilters({ parts, query, onChange, findings }: Props) {
  const set = (part: Partial<ClientQuery>) => onChange({ ...query, ...part });
  const orders: [string, string][] = [
    ["since", "Sort by when they came"],
    ["name", "name"],
    ...parts.fields
      .filter(({ field }) => field.kind !== "files" && field.kind !== "rows")
      .map(({ field }): [string, string] => [field.key, field.label]),
  ];
  const nameOf = (key: string) => {
    const found = parts.fields.find((one) => one.field.key === key)?.field;
    return found ? found.label : "a deleted field";
  };
  return (
    <div className="mb-3 grid gap-2">
      <div className="flex flex-wrap items-center gap-2">
        <input
          type="search"
          aria-label="Search in everything"
          placeholder="Search everything"
          className={`${boxLook} min-w-56 flex-1`}
          value={query.words}
          onChange={(e) => set({ words: e.target.value })}
        />
        <FilterFold count={filtersSet(query)}>
          <Menu label={standingLabel(query)}>
            {standings.map((one) => (
              <CheckItem key={one} value={one} chosen={query.standings} onChange={(standings) => set({ standings })}>
                {standingWords[one]}
              </CheckItem>
            ))}
          </Menu>
          {parts.tags.length > 0 && (
            <Menu label={query.tags.length > 0 ? query.tags.join(", ") : "Any tag"}>
              {parts.tags.map((one) => (
                <CheckItem key={one} value={one} chosen={query.tags} onChange={(tags) => set({ tags })}>
                  {one}
                </CheckItem>
              ))}
            </Menu>
          )}
          <Menu label="Filter by a field">
            {parts.fields.map(({ field, tests, scope }) => (
              <DropdownMenu.Item
                key={field.key}
                className={menuItem}
                onSelect={() => set({ filters: [...query.filters, { field: field.key, test: tests[0]!, value: "" }] })}
              >
                {field.label} {scope === "project" && <span className="ml-1 text-slate">(project)</span>}
              </DropdownMenu.Item>
            ))}
          </Menu>
          <Menu label="Columns">
            {parts.fields.map(({ field, scope }) => (
              <CheckItem
                key={field.key}
                value={field.key}
                chosen={query.columns}
                onChange={(columns) => set({ columns })}
              >
                {field.label} {scope === "project" && <span className="ml-1 text-slate">(project)</span>}
              </CheckItem>
            ))}
          </Menu>
          <OrderBox
            order={query.sort}
            orders={orders}
            backwards={query.descending !== (query.sort === "since")}
            onOrder={(sort) => set({ sort, descending: sort === "since" })}
            onTurn={() => set({ descending: !query.descending })}
          />
          <ListViews
            views={parts.views}
            all="Everyone"
            onOpen={(view) => onChange({ ...everybody, ...view })}
            onKeep={(name) => orProblem(api.PUT("/api/clients/views", { body: { name, query } }))}
            onRemove={(id) => orProblem(api.DELETE("/api/clients/views/{id}", { params: { path: { id } } }))}
          />
        </FilterFold>
      </div>
      {query.filters.map((filter, index) => {
        const found = parts.fields.find((one) => one.field.key === filter.field);
        const change = (part: Partial<typeof filter>) =>
          set({ filters: query.filters.map((one, at) => (at === index ? { ...one, ...part } : one)) });
        const kind = found?.field.kind;
        return (
          <div key={index} className="flex flex-wrap items-center gap-2">
            <span>{nameOf(filter.field)}</span>
            <select
              aria-label={`How ${nameOf(filter.field)} is compared`}
              className={controlLook}
              value={filter.test}
              onChange={(e) => change({ test: e.target.value as Test })}
            >
              {(found?.tests ?? [filter.test]).map((test) => (
                <option key={test} value={test}>
                  {(kind === "date" && dayWords[test]) || testWords[test]}
                </option>
              ))}
            </select>
            {filter.test !== "isFilled" &&
              filter.test !== "isEmpty" &&
              (kind === "yesNo" ? (
                <select
                  aria-label={`What ${nameOf(filter.field)} is compared with`}
                  className={controlLook}
                  value={filter.value}
                  onChange={(e) => change({ value: e.target.value })}
                >
                  <option value="">choose …</option>
                  <option value="yes">yes</option>
                  <option value="no">no</option>
                </select>
              ) : (
                <input
                  aria-label={`What ${nameOf(filter.field)} is compared with`}
                  type={kind === "date" ? "date" : "text"}
                  list={found?.field.options?.length ? `options-${index}` : undefined}
                  className={controlLook}
                  value={filter.value}
                  onChange={(e) => change({ value: e.target.value })}
                />
              ))}
            {found?.field.options && found.field.options.length > 0 && (
              <datalist id={`options-${index}`}>
                {found.field.options.map((one) => (
                  <option key={one} value={one} />
                ))}
              </datalist>
            )}
            <button
              type="button"
              aria-label={`Remove the filter on ${nameOf(filter.field)}`}
              className="rounded-soft p-1.5 text-slate hover:text-brick"
              onClick={() => set({ filters: query.filters.filter((_, at) => at !== index) })}
            >
              <X size={18} aria-hidden />
            </button>
          </div>
        );
      })}
      {[...findings.values()].map((sentence) => (
        <p key={sentence} role="alert" className="font-semibold text-brick">
          {sentence}
        </p>
      ))}
    </div>
  );
}

function standingLabel(query: ClientQuery): string {
  if (query.standings.length === 0) return "All but archived";
  return query.standings.map((one) => standingWords[one]).join(", ");
}
