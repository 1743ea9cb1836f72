import type { ReactNode } from "react";
import type { Schemas } from "../../../api/problem";
import { TextBox } from "../../../kit/fields";
import { ConditionEditor } from "../conditions/ConditionEditor";
import { changeItem, type Item, type PlacedItem } from "../form";
import { useWorkbench } from "../workbenchContext";
import { FilePicker } from "./FilePicker";
import { KnownTextBox } from "./KnownTextBox";
import { Members } from "./Members";
import { Sheet } from "./Sheet";
import { WidthBox } from "./WidthBox";

type ContentItem = Exclude<PlacedItem, { item: "question" }>;
type Named<K extends ContentItem["item"]> = Extract<Item, { item: K }>;

const names: Record<ContentItem["item"], string> = {
  heading: "A heading",
  passage: "A text",
  picture: "A picture",
  video: "A video",
  divider: "A line across the page",
  download: "A file to take away",
};

/** Something on a page that asks nothing. */
export function ContentDesk({ item }: { item: ContentItem }) {
  const { edit } = useWorkbench();
  const change = (part: object, member: string) =>
    edit((form) => changeItem(form, item.key, part), `${item.key}.${member}`);
  const file = (label: string, value: string, groups: Schemas["FileGroup"][]) => (
    <FilePicker
      label={label}
      groups={groups}
      value={value === noFile ? null : value}
      onChange={(next) => change({ file: next ?? noFile }, "file")}
      optional={false}
    />
  );
  const words = (label: string, member: string, value: string, help?: string) => (
    <TextBox label={label} help={help} value={value} onChange={(e) => change({ [member]: e.target.value }, member)} />
  );
  const text = (label: string, value: string, lines: "one" | "several") => (
    <KnownTextBox
      label={label}
      value={value}
      onChange={(next) => change({ text: next }, "text")}
      place={item.key}
      lines={lines}
    />
  );
  const common = {
    width: <WidthBox value={item.width} onChange={(width) => change({ width }, "width")} />,
    shownOnlyWhen: (
      <ConditionEditor
        value={item.shownOnlyWhen}
        onChange={(shownOnlyWhen) => change({ shownOnlyWhen }, "shownOnlyWhen")}
        place={{ at: "item", key: item.key }}
        without="It is always shown."
        begin="Show it only when …"
        label="Shown only when"
      />
    ),
  };
  const desks: { [K in ContentItem["item"]]: (one: Named<K>) => ReactNode } = {
    heading: (one) => <Members of="ItemHeading" fields={{ text: text("The heading", one.text, "one"), ...common }} />,
    passage: (one) => <Members of="ItemPassage" fields={{ text: text("The text", one.text, "several"), ...common }} />,
    picture: (one) => (
      <Members
        of="ItemPicture"
        fields={{
          file: file("The picture", one.file, ["picture"]),
          alt: words(
            "What it shows",
            "alt",
            one.alt,
            "For people who cannot see it. Leave it empty when it only decorates.",
          ),
          ...common,
        }}
      />
    ),
    video: (one) => (
      <Members
        of="ItemVideo"
        fields={{
          file: file("The video", one.file, ["film"]),
          title: words("What it shows", "title", one.title),
          ...common,
        }}
      />
    ),
    divider: () => <Members of="ItemDivider" fields={common} />,
    download: (one) => (
      <Members
        of="ItemDownload"
        fields={{
          file: file("The file", one.file, []),
          label: words("What the link says", "label", one.label),
          ...common,
        }}
      />
    ),
  };
  // Which function it is hangs on the item it is called with; the compiler cannot see that.
  const show = desks[item.item] as (one: ContentItem) => ReactNode;
  return (
    <Sheet title={names[item.item]} place={item.key}>
      {show(item)}
    </Sheet>
  );
}

/** What stands where no file is chosen yet. */
export const noFile = "00000000-0000-0000-0000-000000000000";
