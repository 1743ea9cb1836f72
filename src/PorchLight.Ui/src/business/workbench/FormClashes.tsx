import { Clashes } from "../saving/Clashes";
import { find, type WorkingForm } from "./form";
import { KnownWords } from "../messages/words";
import type { Building } from "./useWorkingForm";

/** What two people changed in one place of the form, by the names the outline has for it. */
export function FormClashes({ building }: { building: Building }) {
  const { clashes, form, choose } = building;
  return <Clashes clashes={clashes} nameOf={(place) => nameOf(form, place)} say={say} onChoose={choose} />;
}

const members: Record<string, string> = {
  wording: "the wording",
  help: "the help text",
  placeholder: "the example in the box",
  kind: "how it is answered",
  required: "whether it must be answered",
  requiredWhen: "when it must be answered",
  askedOnlyWhen: "when it is asked",
  shownOnlyWhen: "when it is shown",
  landsIn: "where it lands",
  prefill: "what it is prefilled with",
  width: "the width",
  page: "its page",
  title: "the title",
  text: "the words",
  when: "who it is for",
  routes: "where it leads",
};

function nameOf(form: WorkingForm, place: string): string {
  const [list = "", key = "", member, ...deeper] = place.split(".");
  if (key === "~order") return list === "sendOffs" ? "The order of the send-offs" : "The order of the form";
  if (!["items", "pages", "sendOffs"].includes(list)) return list === "title" ? "The title" : `The form: ${list}`;
  const chosen = find(form, key);
  const name =
    chosen.what === "item"
      ? chosen.item.item === "question"
        ? `Question ${form.items.filter((one) => one.item === "question").indexOf(chosen.item as never) + 1}`
        : "Something shown"
      : chosen.what === "page"
        ? `Page ${chosen.number}`
        : chosen.what === "sendOff"
          ? "A send-off"
          : "Something deleted here";
  const what = members[deeper.at(-1) ?? ""] ?? members[member ?? ""] ?? member;
  return what ? `${name}: ${what}` : name;
}

/** A value in the words of the workbench, where it has any. */
function say(value: unknown): string | undefined {
  if (value === null || value === undefined) return "(not there, or nothing)";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value !== "object") return undefined;
  const { wording, title, text, label } = value as Record<string, unknown>;
  const words = [wording, title, text, label].find((one) => typeof one === "string") as string | undefined;
  return words === undefined ? undefined : KnownWords.plain(words);
}
