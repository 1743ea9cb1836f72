import { orProblem, type Schemas } from "../../api/problem";
import { CheckItem, Menu } from "../../kit/CheckMenu";
import { boxLook } from "../../kit/fields";
import { FilterFold } from "../../kit/FilterFold";
import { OrderBox } from "../../kit/OrderBox";
import { fits } from "../../kit/fits";
import { api } from "../../api/client";
import { ListViews } from "../lists/ListViews";
import { everything, filtersSet, type InquiryQuery } from "./inquiryQuery";

const orders: readonly (readonly [Schemas["InquiryOrder"], string])[] = [
  ["need", "Sort by urgency"],
  ["received", "when they came"],
  ["score", "points"],
  ["budget", "budget"],
  ["name", "name"],
];

interface Props {
  parts: Schemas["InquiryListParts"];
  query: InquiryQuery;
  onChange: (query: InquiryQuery) => void;
  /** What is wrong with it. */
  findings: Map<string, string>;
}

/** What the list of inquiries shows: words, what they need, fit, form and all else; the order; and views that were kept. */
export function InquiryFilters({ parts, query, onChange, findings }: Props) {
  const set = (part: Partial<InquiryQuery>) => onChange({ ...query, ...part });
  const more = [
    ...query.services,
    ...query.sources,
    ...query.stages.map((key) => parts.stages.find((one) => one.key === key)?.name ?? key),
    ...(query.flagged ? ["flagged"] : []),
  ];
  return (
    <div className="mb-3 grid gap-2">
      <div className="flex flex-wrap items-center gap-2">
        <input
          type="search"
          aria-label="Search in everything they wrote"
          placeholder="Search in everything they wrote"
          className={`${boxLook} min-w-52 flex-1`}
          value={query.words}
          onChange={(e) => set({ words: e.target.value })}
        />
        <FilterFold count={filtersSet(query)}>
          <Menu label={label(query.needs, parts.needs, "need", "words", "Any status")}>
            {parts.needs.map((one) => (
              <CheckItem key={one.need} value={one.need} chosen={query.needs} onChange={(needs) => set({ needs })}>
                {one.words}
              </CheckItem>
            ))}
          </Menu>
          <Menu
            label={
              query.fits.length > 0
                ? fits
                    .filter(([one]) => query.fits.includes(one))
                    .map(([, words]) => words)
                    .join(", ")
                : "Any fit"
            }
          >
            {fits.map(([one, words]) => (
              <CheckItem key={one} value={one} chosen={query.fits} onChange={(next) => set({ fits: next })}>
                {words}
              </CheckItem>
            ))}
          </Menu>
          <Menu label={label(query.forms, parts.forms, "id", "name", "All forms")}>
            {parts.forms.map((one) => (
              <CheckItem key={one.id} value={one.id} chosen={query.forms} onChange={(forms) => set({ forms })}>
                {one.name}
              </CheckItem>
            ))}
          </Menu>
          <Menu
            label={
              query.unassigned
                ? "Assigned to no one"
                : label(query.lookedAfterBy, parts.people, "id", "name", "Assigned to anyone")
            }
          >
            <CheckItem
              value={true}
              chosen={query.unassigned ? [true] : []}
              onChange={(on) => set({ unassigned: on.length > 0, lookedAfterBy: [] })}
            >
              assigned to no one
            </CheckItem>
            {parts.people.map((one) => (
              <CheckItem
                key={one.id}
                value={one.id}
                chosen={query.lookedAfterBy}
                onChange={(lookedAfterBy) => set({ lookedAfterBy, unassigned: false })}
              >
                {one.name}
              </CheckItem>
            ))}
          </Menu>
          <Menu label={more.length > 0 ? more.join(", ") : "More filters"}>
            <CheckItem
              value={true}
              chosen={query.flagged ? [true] : []}
              onChange={(on) => set({ flagged: on.length > 0 })}
            >
              flagged
            </CheckItem>
            {parts.stages.map((one) => (
              <CheckItem key={one.key} value={one.key} chosen={query.stages} onChange={(stages) => set({ stages })}>
                {one.name} <span className="text-slate">(stage)</span>
              </CheckItem>
            ))}
            {parts.services.map((one) => (
              <CheckItem key={one} value={one} chosen={query.services} onChange={(services) => set({ services })}>
                {one} <span className="text-slate">(service)</span>
              </CheckItem>
            ))}
            {parts.sources.map((one) => (
              <CheckItem key={one} value={one} chosen={query.sources} onChange={(sources) => set({ sources })}>
                {one} <span className="text-slate">(source)</span>
              </CheckItem>
            ))}
          </Menu>
          <OrderBox
            order={query.order}
            orders={orders}
            backwards={query.backwards}
            onOrder={(order) => set({ order: order as InquiryQuery["order"], backwards: false })}
            onTurn={() => set({ backwards: !query.backwards })}
          />
          <ListViews
            views={parts.views}
            all="All inquiries"
            onOpen={(view) => onChange({ ...everything, ...view })}
            onKeep={(name) => orProblem(api.PUT("/api/inquiries/views", { body: { name, query } }))}
            onRemove={(id) => orProblem(api.DELETE("/api/inquiries/views/{id}", { params: { path: { id } } }))}
          />
        </FilterFold>
      </div>
      {[...findings.values()].map((sentence) => (
        <p key={sentence} role="alert" className="font-semibold text-brick">
          {sentence}
        </p>
      ))}
    </div>
  );
}

/** What is chosen, by its words; or that nothing is. */
function label<K extends string, W extends string, V extends string>(
  chosen: V[],
  all: (Record<K, V> & Record<W, string>)[],
  key: K,
  words: W,
  none: string,
): string {
  if (chosen.length === 0) return none;
  return chosen.map((one) => all.find((other) => other[key] === one)?.[words] ?? "gone").join(", ");
}
