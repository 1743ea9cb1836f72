import { Menu, MenuItem, SubMenu } from "../../../kit/Menu";
import { useQuery } from "@tanstack/react-query";
import { ask } from "../../../api/ask";
import { orProblem, sentenceOf } from "../../../api/problem";
import { useNotice } from "../../../kit/Notice";
import { api } from "../../../api/client";
import {
  find,
  insert,
  insertCells,
  itemsOn,
  joinPage,
  moveBy,
  moveTo,
  splitPage,
  whole,
  type Item,
  type PlacedItem,
} from "../form";
import { KnownWords } from "../../messages/words";
import { useWorkbench } from "../workbenchContext";

interface Props {
  /** The keys of what is chosen; the one on the desk is among them. */
  chosen: string[];
  canGo: (key: string) => boolean;
  onTakeAway: (keys: string[]) => void;
}

const withoutPage = ({ page: _, ...item }: PlacedItem): Item => item;

/** What can be done with what is chosen in the outline. */
export function ChosenMenu({ chosen, canGo, onTakeAway }: Props) {
  const { id, form, edit, open, readForm } = useWorkbench();
  const say = useNotice();
  const forms = useQuery(ask(["forms"], () => api.GET("/api/forms")));
  const items = form.items.filter((item) => chosen.includes(item.key));
  const one = chosen.length === 1 ? find(form, chosen[0]!) : null;
  const goes = chosen.filter(canGo);
  const page = one?.what === "page" ? one : null;
  const failed = (error: unknown) => say({ words: sentenceOf(error) });

  const copies = (of: Item[]) =>
    orProblem(api.POST("/api/forms/copied-items", { body: { items: of, form: whole(readForm()) } }));
  const duplicate = async () => {
    if (one?.what === "cell") {
      const copied = await copies([{ ...one.cell, item: "question" }]);
      const cells = copied.items.map(({ item: _, ...cell }) => cell as typeof one.cell);
      edit((now) => insertCells(now, one.of.key, one.cell.key, cells), `copy ${one.cell.key}`);
      open(cells[0]!.key);
      return;
    }
    const last = items.at(-1)!;
    const copied = await copies(items.map(withoutPage));
    edit((now) => insert(now, last.page, last.key, copied.items), `copy ${last.key}`);
    open(copied.items[0]!.key);
    if (copied.lost.length > 0) say({ words: copied.lost.join(" ") });
  };
  const copyTo = async (target: string, title: string) => {
    const path = { id: target };
    const there = (await orProblem(api.GET("/api/forms/{id}/content", { params: { path } }))).content;
    const copied = await orProblem(
      api.POST("/api/forms/copied-items", { body: { items: items.map(withoutPage), form: there } }),
    );
    const pages = there.pages.map((last, index) =>
      index === there.pages.length - 1 ? { ...last, items: [...last.items, ...copied.items] } : last,
    );
    await orProblem(
      api.PUT("/api/forms/{id}/content", { params: { path }, body: { was: there, now: { ...there, pages } } }),
    );
    say({ words: [`Copied to the last page of “${title}”.`, ...copied.lost].join(" ") });
  };

  if (goes.length === 0 && items.length === 0) return null;
  return (
    <Menu label={<>{chosen.length > 1 ? `${chosen.length} chosen` : "This one"}</>} align="end">
      {(items.length > 0 || one?.what === "cell") && (
        <MenuItem onSelect={() => void duplicate().catch(failed)}>Duplicate</MenuItem>
      )}
      {one && (
        <>
          <MenuItem onSelect={() => edit((now) => moveBy(now, chosen[0]!, -1), `order ${chosen[0]}`)}>
            Move up <Keys>Alt+↑</Keys>
          </MenuItem>
          <MenuItem onSelect={() => edit((now) => moveBy(now, chosen[0]!, 1), `order ${chosen[0]}`)}>
            Move down <Keys>Alt+↓</Keys>
          </MenuItem>
        </>
      )}
      {items.length > 0 && form.pages.length > 1 && (
        <SubMenu label="Move to page …">
          {form.pages.map((to, index) => (
            <MenuItem
              key={to.key}
              onSelect={() =>
                edit(
                  (now) =>
                    moveTo(
                      now,
                      items.map((item) => item.key),
                      to.key,
                    ),
                  `order ${items[0]!.key}`,
                )
              }
            >
              {index + 1} {KnownWords.plain(to.title)}
            </MenuItem>
          ))}
        </SubMenu>
      )}
      {one?.what === "item" && itemsOn(form, one.item.page)[0]?.key !== one.item.key && (
        <MenuItem
          onSelect={() => {
            const split = splitPage(form, one.item.key);
            edit(() => split.form, `split ${one.item.key}`);
            open(split.page);
          }}
        >
          A new page begins here
        </MenuItem>
      )}
      {page && page.number > 1 && (
        <MenuItem
          onSelect={() => {
            edit((now) => joinPage(now, page.page.key), `join ${page.page.key}`);
            open(form.pages[page.number - 2]!.key);
          }}
        >
          Join it with the page before
        </MenuItem>
      )}
      {items.length > 0 && (forms.data?.length ?? 0) > 1 && (
        <SubMenu label="Copy to another form …">
          {forms.data
            ?.filter((other) => other.id !== id)
            .map((other) => (
              <MenuItem key={other.id} onSelect={() => void copyTo(other.id, other.title).catch(failed)}>
                {other.title}
              </MenuItem>
            ))}
        </SubMenu>
      )}
      {goes.length > 0 && (
        <MenuItem className="text-brick" onSelect={() => onTakeAway(goes)}>
          Remove <Keys>Delete</Keys>
        </MenuItem>
      )}
    </Menu>
  );
}

const Keys = ({ children }: { children: string }) => (
  <span className="ml-auto pl-6 text-caption text-slate">{children}</span>
);
