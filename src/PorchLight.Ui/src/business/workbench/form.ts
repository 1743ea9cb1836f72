import type { Schemas } from "../../api/problem";

export type FormContent = Schemas["FormContent"];
export type Item = Schemas["Item"];
export type Question = Schemas["ItemQuestion"];
/** A question that is asked in each row of a list. */
export type RowQuestion = Schemas["Question"];
export type AnyQuestion = Question | RowQuestion;
export type SendOff = Schemas["SendOff"];
export type Condition = Schemas["Condition"];
export type Calculation = Schemas["Calculation"];
export type QuestionKind = Schemas["QuestionKind"];
export type KindNamed<K extends QuestionKind["kind"]> = Extract<QuestionKind, { kind: K }>;

/** A page without what stands on it. */
export type PageHead = Omit<Schemas["Page"], "items">;
/** Something on a page, with the key of the page. */
export type PlacedItem = Item & { page: string };

/**
 * A form while it is built: everything on its pages is one list, so that whatever is moved to another page stays the same thing.
 * The server merges forms in the same shape, and names places in it.
 */
export interface WorkingForm extends Omit<FormContent, "pages"> {
  pages: PageHead[];
  items: PlacedItem[];
}

/** What the desk shows when nothing else is chosen: the form itself. */
export const wholeForm = "~form";
/** How the form looks, as something to be chosen. */
export const itsLook = "~look";

export function flat({ pages, ...rest }: FormContent): WorkingForm {
  return {
    ...rest,
    pages: pages.map(({ items: _, ...head }) => head),
    items: pages.flatMap((page) => page.items.map((item) => ({ ...item, page: page.key }))),
  };
}

/** The form as it is stored. What stands on a page that is gone stands behind what it stood behind. */
export function whole({ pages, items, ...rest }: WorkingForm): FormContent {
  const placed = new Map<string, Item[]>(pages.map((page) => [page.key, []]));
  let behind = [...placed.values()][0];
  for (const { page, ...item } of items) {
    behind = placed.get(page) ?? behind;
    behind?.push(item);
  }
  return { ...rest, pages: pages.map((page) => ({ ...page, items: placed.get(page.key) ?? [] })) };
}

export const itemsOn = (form: WorkingForm, page: string) => form.items.filter((item) => item.page === page);

/** What a question asks in each row: the part of it that can be built; none for a kind without rows. */
export const asksOf = (question: AnyQuestion): RowQuestion[] =>
  question.kind.kind === "rows" ? question.kind.asks : question.kind.kind === "people" ? question.kind.more : [];

const withAsks = <T extends AnyQuestion>(question: T, asks: RowQuestion[]): T =>
  question.kind.kind === "rows"
    ? { ...question, kind: { ...question.kind, asks } }
    : question.kind.kind === "people"
      ? { ...question, kind: { ...question.kind, more: asks } }
      : question;

/** The question without what only the outline adds to it. */
export function plainQuestion(question: AnyQuestion): RowQuestion {
  const { page: _, item: __, ...plain } = { page: "", item: "question", ...question };
  return plain;
}

/** What is chosen in the outline. */
export type Chosen =
  | { what: "form" }
  | { what: "look" }
  | { what: "page"; page: PageHead; number: number }
  | { what: "item"; item: PlacedItem }
  | { what: "cell"; cell: RowQuestion; of: Question & { page: string } }
  | { what: "sendOff"; sendOff: SendOff; isDefault: boolean };

export function find(form: WorkingForm, key: string): Chosen {
  if (key === itsLook) return { what: "look" };
  const number = form.pages.findIndex((page) => page.key === key) + 1;
  if (number > 0) return { what: "page", page: form.pages[number - 1]!, number };
  for (const item of form.items) {
    if (item.key === key) return { what: "item", item };
    const cell = item.item === "question" && asksOf(item).find((one) => one.key === key);
    if (cell) return { what: "cell", cell, of: item };
  }
  if (form.defaultSendOff.key === key) return { what: "sendOff", sendOff: form.defaultSendOff, isDefault: true };
  const sendOff = form.sendOffs.find((one) => one.key === key);
  return sendOff ? { what: "sendOff", sendOff, isDefault: false } : { what: "form" };
}

/** Every key that is taken. */
export function keysOf(form: WorkingForm): Set<string> {
  return new Set([
    ...form.pages.map((page) => page.key),
    ...form.items.flatMap((item) => [
      item.key,
      ...(item.item === "question" ? rowQuestions(item).map((one) => one.key) : []),
    ]),
    ...form.sendOffs.map((sendOff) => sendOff.key),
    form.defaultSendOff.key,
  ]);
}

/** A key for something that has no words yet. */
export function freeKey(form: WorkingForm, name: string): string {
  const taken = keysOf(form);
  let key = name;
  for (let number = 2; taken.has(key); number++) key = `${name}-${number}`;
  return key;
}

/** The form with something else in the place of one item, a question asked in rows included. */
export function changeItem(form: WorkingForm, key: string, part: object): WorkingForm {
  return {
    ...form,
    items: form.items.map((item) => {
      if (item.key === key) return { ...item, ...part } as PlacedItem;
      if (item.item !== "question" || !asksOf(item).some((one) => one.key === key)) return item;
      return withAsks(
        item,
        asksOf(item).map((one) => (one.key === key ? { ...one, ...part } : one)),
      );
    }),
  };
}

export const changePage = (form: WorkingForm, key: string, part: Partial<PageHead>): WorkingForm => ({
  ...form,
  pages: form.pages.map((page) => (page.key === key ? { ...page, ...part } : page)),
});

export const changeSendOff = (form: WorkingForm, key: string, part: Partial<SendOff>): WorkingForm => ({
  ...form,
  sendOffs: form.sendOffs.map((sendOff) => (sendOff.key === key ? { ...sendOff, ...part } : sendOff)),
  defaultSendOff: form.defaultSendOff.key === key ? { ...form.defaultSendOff, ...part } : form.defaultSendOff,
});

/** Items set in on a page, behind another one or, without one, at the end. */
export function insert(form: WorkingForm, page: string, behind: string | null, items: Item[]): WorkingForm {
  const placed = items.map((item) => ({ ...item, page }) as PlacedItem);
  const index = form.items.findIndex((item) => item.key === behind && item.page === page);
  const at = index >= 0 ? index + 1 : endOf(form, page);
  return { ...form, items: [...form.items.slice(0, at), ...placed, ...form.items.slice(at)] };
}

/** Where the next item of a page would stand in the list of all. */
function endOf(form: WorkingForm, page: string): number {
  const last = form.items.findLastIndex((item) => item.page === page);
  if (last >= 0) return last + 1;
  const before = form.pages
    .slice(
      0,
      form.pages.findIndex((one) => one.key === page),
    )
    .map((one) => one.key);
  return form.items.findLastIndex((item) => before.includes(item.page)) + 1;
}

/** Questions set into the rows of a list, behind another one or at the end. */
export function insertCells(form: WorkingForm, rows: string, behind: string | null, cells: RowQuestion[]): WorkingForm {
  const list = form.items.find((item) => item.key === rows);
  if (list?.item !== "question") return form;
  const asks = asksOf(list);
  const index = asks.findIndex((one) => one.key === behind);
  const at = index < 0 ? asks.length : index + 1;
  return changeItem(form, rows, withAsks(list, [...asks.slice(0, at), ...cells, ...asks.slice(at)]));
}

/** Takes away whatever has one of the keys: items, row questions, send-offs, pages with what stands on them. */
export function remove(form: WorkingForm, keys: string[]): WorkingForm {
  const gone = new Set(keys);
  return {
    ...form,
    pages: form.pages.filter((page) => !gone.has(page.key)),
    sendOffs: form.sendOffs.filter((sendOff) => !gone.has(sendOff.key)),
    items: form.items
      .filter((item) => !gone.has(item.key) && !gone.has(item.page))
      .map((item) =>
        item.item === "question" && asksOf(item).some((one) => gone.has(one.key))
          ? withAsks(
              item,
              asksOf(item).filter((one) => !gone.has(one.key)),
            )
          : item,
      ),
  };
}

/** Moves items to a page, in their order, behind another item or at its end. */
export function moveTo(form: WorkingForm, keys: string[], page: string, behind: string | null = null): WorkingForm {
  const moved = form.items.filter((item) => keys.includes(item.key));
  return insert({ ...form, items: form.items.filter((item) => !keys.includes(item.key)) }, page, behind, moved);
}

const shifted = <T>(list: T[], from: number, by: -1 | 1): T[] => {
  const to = from + by;
  if (from < 0 || to < 0 || to >= list.length) return list;
  const next = [...list];
  [next[from], next[to]] = [next[to]!, next[from]!];
  return next;
};

/** Moves one thing up or down by one: an item also over the border of its page, a page with what stands on it. */
export function moveBy(form: WorkingForm, key: string, by: -1 | 1): WorkingForm {
  const chosen = find(form, key);
  switch (chosen.what) {
    case "page":
      return inOrder({ ...form, pages: shifted(form.pages, chosen.number - 1, by) });
    case "sendOff":
      return {
        ...form,
        sendOffs: shifted(
          form.sendOffs,
          form.sendOffs.findIndex((one) => one.key === key),
          by,
        ),
      };
    case "cell": {
      const asks = asksOf(chosen.of);
      return changeItem(
        form,
        chosen.of.key,
        withAsks(
          chosen.of,
          shifted(
            asks,
            asks.findIndex((one) => one.key === key),
            by,
          ),
        ),
      );
    }
    case "item": {
      const here = itemsOn(form, chosen.item.page);
      const index = here.findIndex((item) => item.key === key);
      if (here[index + by]) {
        const all = form.items.indexOf(chosen.item);
        return { ...form, items: shifted(form.items, all, by) };
      }
      const next = form.pages[form.pages.findIndex((page) => page.key === chosen.item.page) + by];
      if (!next) return form;
      if (by < 0) return moveTo(form, [key], next.key);
      const rest = form.items.filter((item) => item.key !== key);
      const at = rest.findIndex((item) => item.page === next.key);
      const moved = { ...chosen.item, page: next.key } as PlacedItem;
      return { ...form, items: at < 0 ? [...rest, moved] : [...rest.slice(0, at), moved, ...rest.slice(at)] };
    }
    default:
      return form;
  }
}

/** The form with its items in the order of its pages. */
function inOrder(form: WorkingForm): WorkingForm {
  return { ...form, items: form.pages.flatMap((page) => itemsOn(form, page.key)) };
}

/** A new, empty page behind another one. */
export function addPage(form: WorkingForm, behind: string, key = freeKey(form, "page")): WorkingForm {
  const at = form.pages.findIndex((page) => page.key === behind) + 1;
  return { ...form, pages: [...form.pages.slice(0, at), { key, title: "" }, ...form.pages.slice(at)] };
}

/** A new page begins with the item; what stands behind it on its page goes with it. */
export function splitPage(form: WorkingForm, key: string): { form: WorkingForm; page: string } {
  const first = form.items.find((item) => item.key === key)!;
  const page = freeKey(form, "page");
  const here = itemsOn(form, first.page);
  const moved = new Set(here.slice(here.indexOf(first)).map((item) => item.key));
  const items = form.items.map((item) => (moved.has(item.key) ? ({ ...item, page } as PlacedItem) : item));
  return { form: { ...addPage(form, first.page, page), items }, page };
}

/** What stands on a page goes to the end of the page before it, and the page is gone. */
export function joinPage(form: WorkingForm, key: string): WorkingForm {
  const index = form.pages.findIndex((page) => page.key === key);
  const before = form.pages[index - 1];
  if (!before) return form;
  return {
    ...form,
    pages: form.pages.filter((page) => page.key !== key),
    items: form.items.map((item) => (item.page === key ? ({ ...item, page: before.key } as PlacedItem) : item)),
  };
}

/** Items in the order in which they were dragged: a list of keys in which "page:one" stands for the head of a page. */
export function reorder(form: WorkingForm, order: string[]): WorkingForm {
  let page = form.pages[0]?.key ?? "";
  const items = order.flatMap((id) => {
    if (id.startsWith("page:")) {
      page = id.slice("page:".length);
      return [];
    }
    const item = form.items.find((one) => one.key === id);
    return item ? [{ ...item, page } as PlacedItem] : [];
  });
  return inOrder({ ...form, items });
}

/** Everything that was asked before a place and can be compared there: row questions only within their own row. */
export function questionsBefore(form: WorkingForm, key: string): AnyQuestion[] {
  const chosen = find(form, key);
  const before: AnyQuestion[] = [];
  for (const page of form.pages) {
    if (chosen.what === "page" && page.key === key) return before;
    for (const item of itemsOn(form, page.key)) {
      if (item.key === key) return before;
      if (chosen.what === "cell" && chosen.of.key === item.key) {
        const asks = rowQuestions(item as Question);
        return [
          ...before,
          ...asks.slice(
            0,
            asks.findIndex((one) => one.key === key),
          ),
        ];
      }
      if (item.item === "question") before.push(item);
    }
  }
  return before;
}

/** Everything a row asks, with the name and birth date of people. */
export function rowQuestions(question: AnyQuestion): RowQuestion[] {
  const { kind } = question;
  if (kind.kind !== "people") return asksOf(question);
  return [
    { key: kind.nameKey, wording: "Name", kind: { kind: "personName" } },
    ...(kind.bornKey ? [{ key: kind.bornKey, wording: "Birth date", kind: { kind: "date" as const } }] : []),
    ...kind.more,
  ];
}
