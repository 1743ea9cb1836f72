import { useMemo } from "react";
import { find, questionsBefore } from "../form";
import type { KnownChoice } from "../../messages/words";
import { KnownWords } from "../../messages/words";
import { useWorkbench } from "../workbenchContext";

const always: KnownChoice[] = [
  { name: "firstName", words: "Their first name" },
  { name: "business", words: "The name of your business" },
  { name: "owner", words: "Your name" },
];
const promised: KnownChoice = { name: "promise", words: "When you answer (by Tuesday 15:00)" };

/** What can be set into words at a place: answers given before it, and what is known anyway. */
export function useKnownChoices(key: string, atTheEnd = false): KnownChoice[] {
  const { form } = useWorkbench();
  // The order and the wordings of the questions are all it hangs on.
  const asked = (atTheEnd || find(form, key).what === "form" ? [] : questionsBefore(form, key)).map(
    ({ key: name, wording }) => `${name} ${KnownWords.plain(wording)}`,
  );
  const all = (atTheEnd ? form.items : []).flatMap((item) =>
    item.item === "question" ? [`${item.key} ${KnownWords.plain(item.wording)}`] : [],
  );
  const lines = [...asked, ...all].join("\n");
  return useMemo(
    () => [
      ...(lines === "" ? [] : lines.split("\n")).map((line) => ({
        name: `answer:${line.slice(0, line.indexOf(" "))}`,
        words: line.slice(line.indexOf(" ") + 1),
      })),
      ...always,
      ...(atTheEnd ? [promised] : []),
    ],
    [lines, atTheEnd],
  );
}
