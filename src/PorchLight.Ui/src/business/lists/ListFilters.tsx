import { CheckItem, Menu, MenuItem } from "../../kit/Menu";
import type { Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { boxLook } from "../../kit/fields";
import { FilterFold } from "../../kit/FilterFold";
import { OrderBox } from "../../kit/OrderBox";
import { FieldFilters } from "./FieldFilters";
import { filtersSet, keepView, removeView, type AnyQuery, type List, type ListAddress } from "./list";
import { ListViews } from "./ListViews";

type Part = Schemas["FilterPart"];
type Value = string | null;

interface Props<A extends ListAddress> {
  list: List<A>;
  /** Where the words are searched for: "Search in everything". */
  search: string;
  /** What stands for the list without any filter: "Everyone". */
  all: string;
  /** What is wrong with it, by its parts. */
  findings: Map<string, string>;
}

/** What a list shows: words, whatever it can be filtered by, fields and columns; the order; and views that were kept. */
export function ListFilters<A extends ListAddress>({ list, search, all, findings }: Props<A>) {
  const { choices } = list;
  if (!choices) return null;
  const query = list.query as AnyQuery & Record<string, unknown>;
  const set = (part: object) => list.setQuery({ ...list.query, ...part });
  // An address can be written by hand.
  const valuesOf = (part: Part) => (Array.isArray(query[part.name]) ? (query[part.name] as Value[]) : []);
  const isOn = (part: Part) => query[part.name] === true;
  const own = choices.filters.filter((part) => part.further === null);
  const further = choices.filters.filter((part) => part.further !== null);
  const chosenFurther = further.flatMap((part) =>
    part.kind === "switch" ? (isOn(part) ? [part.words] : []) : said(part, valuesOf(part)),
  );
  const fields = choices.fields;
  const orders: [string, string][] = [
    ...choices.orders.map((order): [string, string] => [order.name, order.words]),
    ...fields
      .filter(({ field }) => field.kind !== "files" && field.kind !== "rows")
      .map(({ field }): [string, string] => [field.key, field.label]),
  ];
  return (
    <div className="mb-3 grid gap-2">
      <div className="flex flex-wrap items-center gap-2">
        <input
          type="search"
          aria-label={search}
          placeholder={search}
          className={`${boxLook} min-w-52 flex-1`}
          value={query.words ?? ""}
          onChange={(e) => set({ words: e.target.value })}
        />
        <FilterFold count={filtersSet(query)}>
          {own.map((part) =>
            part.kind === "switch" ? (
              <Button key={part.name} aria-pressed={isOn(part)} onClick={() => set({ [part.name]: !isOn(part) })}>
                {isOn(part) ? `Only ${part.words} ✓` : `Only ${part.words}`}
              </Button>
            ) : (
              part.choices.length > 0 && (
                <Menu key={part.name} label={said(part, valuesOf(part)).join(", ") || part.words}>
                  <Choices part={part} chosen={valuesOf(part)} onChange={(next) => set({ [part.name]: next })} />
                </Menu>
              )
            ),
          )}
          {further.length > 0 && (
            <Menu label={chosenFurther.join(", ") || "More filters"}>
              {further.map((part) =>
                part.kind === "switch" ? (
                  <CheckItem
                    key={part.name}
                    value={true}
                    chosen={isOn(part) ? [true] : []}
                    onChange={(on) => set({ [part.name]: on.length > 0 })}
                  >
                    {part.words}
                  </CheckItem>
                ) : (
                  <Choices
                    key={part.name}
                    part={part}
                    chosen={valuesOf(part)}
                    onChange={(next) => set({ [part.name]: next })}
                  />
                ),
              )}
            </Menu>
          )}
          {fields.length > 0 && (
            <>
              <Menu label="Filter by a field">
                {fields.map(({ field, tests, scope }) => (
                  <MenuItem
                    key={field.key}
                    onSelect={() =>
                      set({ filters: [...(query.filters ?? []), { field: field.key, test: tests[0]!, value: "" }] })
                    }
                  >
                    {field.label} {scope === "project" && <span className="ml-1 text-slate">(project)</span>}
                  </MenuItem>
                ))}
              </Menu>
              <Menu label="Columns">
                {fields.map(({ field, scope }) => (
                  <CheckItem
                    key={field.key}
                    value={field.key}
                    chosen={query.columns ?? []}
                    onChange={(columns) => set({ columns })}
                  >
                    {field.label} {scope === "project" && <span className="ml-1 text-slate">(project)</span>}
                  </CheckItem>
                ))}
              </Menu>
            </>
          )}
          <OrderBox
            order={query.order ?? orders[0]![0]}
            orders={orders}
            backwards={query.backwards ?? false}
            onOrder={(order) => set({ order: order === orders[0]![0] ? undefined : order, backwards: false })}
            onTurn={() => set({ backwards: !query.backwards })}
          />
          <ListViews
            views={choices.views}
            all={all}
            onOpen={(view) => list.setQuery(trimmed(view ?? {}, orders[0]![0]))}
            onKeep={(name) => keepView(list.address, name, list.query)}
            onRemove={(id) => removeView(list.address, id)}
          />
        </FilterFold>
      </div>
      {query.filters && (
        <FieldFilters fields={fields} filters={query.filters} onChange={(filters) => set({ filters })} />
      )}
      {[...findings.values()].map((sentence) => (
        <p key={sentence} role="alert" className="font-semibold text-brick">
          {sentence}
        </p>
      ))}
    </div>
  );
}

/** What is chosen, by its words. */
const said = (part: Part, chosen: Value[]) =>
  chosen.map((value) => part.choices.find((choice) => choice.value === value)?.words ?? "gone");

// A view is kept with all it can say; here only what is not as usual is said.
const trimmed = <Q extends object>(view: Q, usual: string): Q =>
  ({ ...view, ...((view as AnyQuery).order === usual && { order: undefined }) }) as Q;

interface ChoicesProps {
  part: Part;
  chosen: Value[];
  onChange: (chosen: Value[]) => void;
}

function Choices({ part, chosen, onChange }: ChoicesProps) {
  return part.choices.map((choice) => (
    <CheckItem key={choice.value ?? ""} value={choice.value} chosen={chosen} onChange={onChange}>
      {choice.words} {part.further && <span className="text-slate">({part.further})</span>}
    </CheckItem>
  ));
}
