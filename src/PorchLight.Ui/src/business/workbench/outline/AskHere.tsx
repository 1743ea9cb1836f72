import { Menu, MenuItem } from "../../../kit/Menu";
import { memo, useEffect, useRef, useState } from "react";
import { Plus } from "lucide-react";
import { orProblem } from "../../../api/problem";
import { Failure } from "../../../kit/states";
import { api } from "../../../api/client";
import { noFile } from "../desk/ContentDesk";
import { freeKey, insert, insertCells, whole, type Item } from "../form";
import { useActions } from "../workbenchContext";

const contents: [Exclude<Item["item"], "question">, string][] = [
  ["heading", "A heading"],
  ["passage", "A text"],
  ["picture", "A picture"],
  ["video", "A video"],
  ["divider", "A line across the page"],
  ["download", "A file to take away"],
];

interface Props {
  page: string;
  /** The key of what the next one will stand behind; null at the beginning of what is empty. */
  behind: string | null;
  /** The key of the list whose lines ask it; undefined on a page. */
  rows?: string;
}

/** A line to type what is to be asked, at the place where it will stand. What was typed is never lost while it is being read. */
export const AskHere = memo(function AskHere({ page, behind, rows }: Props) {
  const { edit, open, readForm } = useActions();
  const [typed, setTyped] = useState("");
  const [waiting, setWaiting] = useState<string[]>([]);
  const [failure, setFailure] = useState<unknown>(null);
  const input = useRef<HTMLInputElement>(null);
  // What is being read, one after the other, and what was added meanwhile: each stands behind the one typed before it.
  const reading = useRef<Promise<void>>(Promise.resolve());
  const added = useRef<{ places: Set<string | null>; last: string | null; left: number }>({
    places: new Set(),
    last: null,
    left: 0,
  });

  const read = async (text: string, after: string | null): Promise<string | null> => {
    const questions = await orProblem(
      api.POST("/api/forms/typed-questions", { body: { text, form: whole(readForm()) } }),
    );
    if (questions.length === 0) return after;
    edit(
      (now) =>
        rows
          ? insertCells(
              now,
              rows,
              after,
              questions.map((one) => ({ ...one, landsIn: null })),
            )
          : insert(
              now,
              page,
              after,
              questions.map((one) => ({ ...one, item: "question" as const })),
            ),
      `add ${questions[0]!.key}`,
    );
    // Whoever is elsewhere by now is left where they are.
    if (document.activeElement === input.current) open(questions.at(-1)!.key);
    return questions.at(-1)!.key;
  };
  const ask = (text: string) => {
    if (!text.trim()) return;
    setTyped("");
    setFailure(null);
    setWaiting((before) => [...before, text]);
    const run = added.current;
    run.left++;
    reading.current = reading.current
      .then(async () => {
        const key = await read(text, run.places.has(behind) ? run.last : behind);
        run.places.add(behind).add(key);
        run.last = key;
      })
      .catch((error: unknown) => {
        setFailure(error);
        setTyped((now) => (now ? `${text} ${now}` : text));
      })
      .finally(() => {
        setWaiting((before) => before.slice(1));
        run.left--;
      });
  };
  // The next one stands where this line stands, once it stands behind what was added last: whoever types faster than that is shown
  // still means the one before.
  useEffect(() => {
    const run = added.current;
    if (run.left === 0 && behind === run.last) run.places.clear();
  }, [behind, waiting]);
  const addContent = (kind: (typeof contents)[number][0]) => {
    const key = freeKey(readForm(), kind === "passage" ? "text" : kind);
    edit((now) => insert(now, page, behind, [blank(kind, key)]), `add ${key}`);
    open(key);
  };
  return (
    <li className="my-0.5 pl-2">
      {waiting.map((text, index) => (
        <p key={index} className="px-8 text-slate">
          {text}
        </p>
      ))}
      <span className="flex items-center gap-1">
        <Plus size={16} aria-hidden className="ml-1.5 shrink-0 text-dusk" />
        <input
          ref={input}
          aria-label={rows ? "Ask something in each line here" : "Ask something here"}
          placeholder="Add a question"
          className="min-w-0 flex-1 rounded-soft border border-transparent bg-transparent px-1.5 py-1 placeholder:text-dusk hover:border-edge focus:border-edge focus:bg-card"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== "Enter") return;
            e.preventDefault();
            ask(typed);
          }}
          onBlur={() => ask(typed)}
          onPaste={(e) => {
            const text = e.clipboardData.getData("text");
            if (!text.trim().includes("\n")) return;
            e.preventDefault();
            ask(typed + text);
          }}
        />
        {!rows && (
          <Menu
            trigger={
              <button type="button" className="shrink-0 rounded-soft px-1.5 py-1 text-note text-dusk hover:underline">
                Text or picture
              </button>
            }
            align="end"
          >
            {contents.map(([kind, words]) => (
              <MenuItem key={kind} onSelect={() => addContent(kind)}>
                {words}
              </MenuItem>
            ))}
          </Menu>
        )}
      </span>
      <Failure error={failure} />
    </li>
  );
});

function blank(item: (typeof contents)[number][0], key: string): Item {
  switch (item) {
    case "heading":
    case "passage":
      return { item, key, text: "" };
    case "picture":
      return { item, key, file: noFile, alt: "" };
    case "video":
      return { item, key, file: noFile, title: "" };
    case "download":
      return { item, key, file: noFile, label: "" };
    default:
      return { item, key };
  }
}
