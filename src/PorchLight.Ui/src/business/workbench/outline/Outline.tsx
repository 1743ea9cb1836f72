import { memo, useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";
import { closestCenter, DndContext, PointerSensor, useSensor, useSensors, type DragEndEvent } from "@dnd-kit/core";
import { arrayMove, SortableContext, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { Plus } from "lucide-react";
import { Button } from "../../../kit/Button";
import { boxLook } from "../../../kit/fields";
import { useNotice } from "../../../kit/Notice";
import {
  addPage,
  asksOf,
  find,
  freeKey,
  itemsOn,
  itsLook,
  moveBy,
  remove,
  reorder,
  wholeForm,
  type PlacedItem,
  type SendOff,
} from "../form";
import { KnownWords } from "../../messages/words";
import { useWorkbench } from "../workbenchContext";
import { AskHere } from "./AskHere";
import { ChosenMenu } from "./ChosenMenu";
import { OutlineLine } from "./OutlineLine";

/** Everything a form consists of, as numbered lines in order. */
export const Outline = memo(function Outline() {
  const { form, facts, edit, at, open } = useWorkbench();
  const say = useNotice();
  const [others, setOthers] = useState<ReadonlySet<string>>(new Set());
  const [sought, setSought] = useState("");
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const numbers = useMemo(() => {
    const asked = form.items.filter((item) => item.item === "question");
    return new Map(asked.map((item, index) => [item.key, index + 1]));
  }, [form.items]);

  const chosen = others.size > 0 ? [...new Set([...others, at])] : [at];
  const choose = useCallback(
    (key: string, also: boolean) => {
      if (also)
        setOthers((before) => {
          const next = new Set(before);
          next.add(at);
          if (!next.delete(key)) next.add(key);
          return next;
        });
      else setOthers(new Set());
      open(key);
    },
    [at, open],
  );
  // A line that is moved in the page, or goes, loses the focus; it stays in the outline.
  const moved = useRef<string | null>(null);
  const wasHere = useRef(false);
  const lines = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const lost = wasHere.current && document.activeElement === document.body;
    const line = moved.current ?? (lost ? at : null);
    if (line) lines.current?.querySelector<HTMLElement>(`[data-line="${CSS.escape(line)}"]`)?.focus();
    moved.current = null;
  }, [form, at]);
  useEffect(() => {
    const look = (event: FocusEvent) => {
      wasHere.current = lines.current?.contains(event.target as Node) ?? false;
    };
    document.addEventListener("focusin", look);
    return () => document.removeEventListener("focusin", look);
  }, []);

  const takeAway = (keys: string[]) => {
    const next = neighbour(keys);
    const back = edit((now) => remove(now, keys), `remove ${keys.join()}`);
    setOthers(new Set());
    open(next);
    moved.current = next;
    say({ words: keys.length === 1 ? "Deleted." : `${keys.length} items deleted.`, undo: async () => back() });
  };

  // Keys have no blanks. The list stays the same one while only words change, so that no line is drawn anew for it.
  const order = form.pages
    .flatMap((page) => [`page:${page.key}`, ...itemsOn(form, page.key).map((item) => item.key)])
    .join(" ");
  const ids = useMemo(() => order.split(" "), [order]);
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const dragged = arrayMove(ids, ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
    edit((now) => reorder(now, dragged), `order ${active.id}`);
  };
  const sendOffsDropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const place = (id: unknown) => form.sendOffs.findIndex((one) => one.key === id);
    edit(
      (now) => ({ ...now, sendOffs: arrayMove(now.sendOffs, place(active.id), place(over.id)) }),
      `order ${active.id}`,
    );
  };

  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const line = (event.target as HTMLElement).closest<HTMLElement>("[data-line]");
    if (!line) return;
    const key = line.dataset.line!;
    const by = event.key === "ArrowUp" ? -1 : event.key === "ArrowDown" ? 1 : null;
    if (by !== null && event.altKey) {
      edit((now) => moveBy(now, key, by), `order ${key}`);
      moved.current = key;
    } else if (by !== null) {
      const all = [...event.currentTarget.querySelectorAll<HTMLElement>("[data-line]")];
      const next = all[all.indexOf(line) + by];
      next?.focus();
      if (next && event.shiftKey) choose(next.dataset.line!, true);
    } else if (event.key === "Delete" && canGo(key)) takeAway(others.size > 0 ? chosen.filter(canGo) : [key]);
    else return;
    event.preventDefault();
  };

  const canGo = (key: string) => {
    const one = find(form, key);
    return (
      one.what !== "form" &&
      one.what !== "look" &&
      !(one.what === "sendOff" && one.isDefault) &&
      !(one.what === "page" && form.pages.length === 1)
    );
  };
  const neighbour = (gone: string[]): string => {
    const all = [
      wholeForm,
      ...form.pages.flatMap((page) => [page.key, ...itemsOn(form, page.key).map((item) => item.key)]),
    ];
    const index = all.findIndex((key) => gone.includes(key));
    return all.slice(index).find((key) => !gone.includes(key)) ?? all.slice(0, Math.max(index, 1)).at(-1)!;
  };

  const matches = (words: string) => sought !== "" && words.toLowerCase().includes(sought.toLowerCase());
  const findingAt = new Set(facts.findings.map((finding) => finding.place));
  const line = (item: PlacedItem) => {
    const words = wordsOf(item);
    return (
      <OutlineLine
        key={item.key}
        id={item.key}
        number={numbers.get(item.key)}
        words={words}
        quiet={item.item !== "question"}
        isOpen={item.key === at}
        isChosen={others.has(item.key)}
        isFound={matches(words)}
        hasFinding={findingAt.has(item.key)}
        condition={facts.conditions[item.key]}
        landsIn={facts.questions[item.key]?.landsIn ?? undefined}
        signals={facts.questions[item.key]?.signals.join("; ")}
        onChoose={choose}
        canMove
      />
    );
  };

  return (
    // Keys pressed on a line bubble up to where all lines are known.
    // eslint-disable-next-line jsx-a11y/no-static-element-interactions
    <div ref={lines} onKeyDown={onKeyDown} className="pb-16">
      <div className="mb-2 flex items-center gap-2">
        <input
          type="search"
          aria-label="Find in this form"
          placeholder="Find by words"
          className={boxLook}
          value={sought}
          onChange={(e) => setSought(e.target.value)}
        />
        <ChosenMenu chosen={chosen} canGo={canGo} onTakeAway={takeAway} />
      </div>
      <OutlineLine
        id={wholeForm}
        words={form.title || "The form"}
        isOpen={at === wholeForm}
        hasFinding={findingAt.has("title")}
        onChoose={choose}
        strong
      />
      <OutlineLine
        id={itsLook}
        words="How it looks"
        isOpen={at === itsLook}
        hasFinding={findingAt.has("look")}
        onChoose={choose}
        inList={false}
      />
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          {form.pages.map((page, index) => {
            const items = itemsOn(form, page.key);
            const current = items.findIndex(
              (item) => item.key === at || (item.item === "question" && asksOf(item).some((one) => one.key === at)),
            );
            const behind = current < 0 ? items.length - 1 : current;
            return (
              <div key={page.key} role="group" aria-label={`Page ${index + 1}`} className="mt-3">
                <OutlineLine
                  id={page.key}
                  dragId={`page:${page.key}`}
                  before={`Page ${index + 1}`}
                  words={KnownWords.plain(page.title) || "without a title"}
                  isOpen={page.key === at}
                  isChosen={others.has(page.key)}
                  isFound={matches(page.title)}
                  hasFinding={findingAt.has(page.key)}
                  condition={facts.conditions[page.key]}
                  onChoose={choose}
                  strong
                />
                <ol>
                  {[
                    ...items.flatMap((item, place) => [
                      line(item),
                      ...(item.item === "question" && (item.kind.kind === "rows" || item.kind.kind === "people")
                        ? [<Cells key={`${item.key} asks`} list={item} onChoose={choose} />]
                        : []),
                      ...(place === behind ? [<AskHere key="ask" page={page.key} behind={item.key} />] : []),
                    ]),
                    // In the same list as the others, so that it stays the same line when the first question comes.
                    ...(items.length === 0 ? [<AskHere key="ask" page={page.key} behind={null} />] : []),
                  ]}
                </ol>
              </div>
            );
          })}
        </SortableContext>
      </DndContext>
      <Button
        weight="quiet"
        className="mt-2 -ml-1"
        onClick={() => {
          const key = freeKey(form, "page");
          edit((now) => addPage(now, now.pages.at(-1)?.key ?? "", key), `add ${key}`);
          open(key);
        }}
      >
        <Plus size={16} aria-hidden /> Add a page
      </Button>
      <div role="group" aria-label="Send-offs" className="mt-4">
        <h2 className="mb-1 px-2 font-body text-note font-normal text-slate">Send-offs</h2>
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={sendOffsDropped}>
          <SortableContext items={form.sendOffs.map((one) => one.key)} strategy={verticalListSortingStrategy}>
            <ol>
              {form.sendOffs.map((one) => (
                <OutlineLine key={one.key} {...ofSendOff(one)} canMove />
              ))}
              <OutlineLine {...ofSendOff(form.defaultSendOff)} before="else" />
            </ol>
          </SortableContext>
        </DndContext>
        <Button
          weight="quiet"
          className="-ml-1"
          onClick={() => {
            const key = freeKey(form, "send-off");
            edit((now) => ({ ...now, sendOffs: [...now.sendOffs, { key, title: "", text: "" }] }), `add ${key}`);
            open(key);
          }}
        >
          <Plus size={16} aria-hidden /> Add a send-off
        </Button>
      </div>
    </div>
  );

  function ofSendOff(sendOff: SendOff) {
    const words = KnownWords.plain(sendOff.title) || "without a headline";
    return {
      id: sendOff.key,
      words,
      isOpen: sendOff.key === at,
      isChosen: others.has(sendOff.key),
      isFound: matches(words),
      hasFinding: findingAt.has(sendOff.key),
      condition: facts.conditions[sendOff.key],
      onChoose: choose,
    };
  }
});

/** What each line of a list asks, one level in. */
function Cells(props: { list: PlacedItem & { item: "question" }; onChoose: (key: string, also: boolean) => void }) {
  const { facts, at } = useWorkbench();
  const { list } = props;
  const asks = asksOf(list);
  const index = asks.findIndex((one) => one.key === at);
  const behind = index < 0 ? asks.length - 1 : index;
  return (
    <li>
      <ol
        aria-label={`Asked in each line of ${KnownWords.plain(list.wording)}`}
        className="ml-7 border-l border-line pl-1"
      >
        {[
          ...asks.flatMap((one, place) => [
            <OutlineLine
              key={one.key}
              id={one.key}
              words={KnownWords.plain(one.wording) || "without words"}
              isOpen={one.key === at}
              condition={facts.conditions[one.key]}
              hasFinding={facts.findings.some((finding) => finding.place === one.key)}
              onChoose={props.onChoose}
            />,
            ...(place === behind ? [<AskHere key="ask" page={list.page} behind={one.key} rows={list.key} />] : []),
          ]),
          ...(asks.length === 0 ? [<AskHere key="ask" page={list.page} behind={null} rows={list.key} />] : []),
        ]}
      </ol>
    </li>
  );
}

function wordsOf(item: PlacedItem): string {
  switch (item.item) {
    case "question":
      return KnownWords.plain(item.wording) || "without words";
    case "heading":
      return `Heading: ${KnownWords.plain(item.text)}`;
    case "passage":
      return `Text: ${KnownWords.plain(item.text)}`;
    case "picture":
      return `Picture: ${item.alt}`;
    case "video":
      return `Video: ${item.title}`;
    case "download":
      return `File: ${item.label}`;
    default:
      return "A line across the page";
  }
}
