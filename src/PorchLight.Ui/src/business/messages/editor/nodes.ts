import { Extension, mergeAttributes, Node, wrappingInputRule } from "@tiptap/core";
import { NodeSelection, Plugin } from "@tiptap/pm/state";
import { Bold } from "@tiptap/extension-bold";
import { Document } from "@tiptap/extension-document";
import { Link } from "@tiptap/extension-link";
import { BulletList, ListItem, ListKeymap, OrderedList } from "@tiptap/extension-list";
import { Paragraph } from "@tiptap/extension-paragraph";
import { Text } from "@tiptap/extension-text";
import { Gapcursor, UndoRedo } from "@tiptap/extensions";
import { ReactNodeViewRenderer } from "@tiptap/react";
import { KnownWords, type Placeholder } from "../words";
import { canLeadTo } from "./formattedText";
import { GapToFill, GapToPrompt } from "./GapView";
import { KnownView } from "./KnownView";
import type { Stage } from "./messageDocument";
import { PictureView } from "./PictureView";

/** Enter opens what is chosen with the arrow keys: the button in it does. */
const opensByEnter = (name: string) =>
  Extension.create({
    name: `${name}OpensByEnter`,
    addKeyboardShortcuts() {
      return {
        Enter: ({ editor }) => {
          const { selection } = editor.state;
          if (!(selection instanceof NodeSelection) || selection.node.type.name !== name) return false;
          const shown = editor.view.nodeDOM(selection.from);
          if (shown instanceof HTMLElement) shown.querySelector("button")?.click();
          return true;
        },
      };
    },
  });

/** A place for what is known, and what stands there while it is not. */
export const Known = Node.create({
  name: "known",
  group: "inline",
  inline: true,
  atom: true,
  addAttributes: () => ({ name: { default: "" }, fallback: { default: "" } }),
  parseHTML: () => [
    {
      tag: "span[data-known]",
      getAttrs: (span) => KnownWords.parts(span.dataset.known ?? "").find((part) => typeof part !== "string") ?? false,
    },
  ],
  renderHTML: ({ node }) => ["span", { "data-known": KnownWords.write(node.attrs as Placeholder) }],
  renderText: ({ node }) => KnownWords.write(node.attrs as Placeholder),
  addNodeView: () => ReactNodeViewRenderer(KnownView, { as: "span" }),
  addExtensions: () => [opensByEnter("known")],
});

const Picture = Node.create({
  name: "picture",
  group: "inline",
  inline: true,
  atom: true,
  addAttributes: () => ({ file: { default: "" }, words: { default: "" } }),
  parseHTML: () => [
    {
      tag: "img[data-file]",
      getAttrs: (image) => ({ file: image.dataset.file, words: image.getAttribute("alt") ?? "" }),
    },
  ],
  renderHTML: ({ node }) => ["img", { "data-file": node.attrs.file as string, alt: node.attrs.words as string }],
  addNodeView: () => ReactNodeViewRenderer(PictureView, { as: "span" }),
  addExtensions: () => [opensByEnter("picture")],
});

/** The part of the message that a block was read from; what one pastes was part of none. */
const ofPart = { part: { default: null, rendered: false } };

const Line = Paragraph.extend({ addAttributes: () => ofPart });
const Dots = BulletList.extend({ addAttributes: () => ofPart });
const Numbers = OrderedList.extend({
  addAttributes: () => ofPart,
  // A list counts from one.
  addInputRules() {
    return [wrappingInputRule({ find: /^1\.\s$/, type: this.type })];
  },
});
const Item = ListItem.extend({ content: "paragraph" });

/** A place that a person fills each time. */
const gap = {
  name: "gap",
  isolating: true,
  defining: true,
  addAttributes: () => ({ key: { default: "", rendered: false }, prompt: { default: "", rendered: false } }),
} as const;

/** A gap in which one says what belongs there. */
const Prompted = Node.create({
  ...gap,
  content: "text*",
  marks: "",
  parseHTML: () => [{ tag: "div[data-gap]" }],
  renderHTML: ({ HTMLAttributes }) => ["div", mergeAttributes(HTMLAttributes, { "data-gap": "" }), 0],
  addNodeView: () => ReactNodeViewRenderer(GapToPrompt),
  addKeyboardShortcuts() {
    return {
      // One goes on writing behind it.
      Enter: ({ editor }) => {
        const { $from } = editor.state.selection;
        if ($from.parent.type.name !== this.name) return false;
        return editor
          .chain()
          .insertContentAt($from.after(), { type: "paragraph" })
          .setTextSelection($from.after() + 1)
          .run();
      },
      Backspace: ({ editor }) => {
        const { $from, empty } = editor.state.selection;
        const isEmptyGap = empty && $from.parent.type.name === this.name && $from.parent.content.size === 0;
        return isEmptyGap && editor.commands.deleteRange({ from: $from.before(), to: $from.after() });
      },
    };
  },
});

/** A gap that is filled. Where it stays, whatever is cut away around it leaves it empty in its place. */
const filled = (stays: boolean) =>
  Node.create({
    ...gap,
    content: "block+",
    renderHTML: () => ["div", 0],
    addNodeView: () => ReactNodeViewRenderer(GapToFill),
    addProseMirrorPlugins() {
      if (!stays) return [];
      return [
        new Plugin({
          appendTransaction: (transactions, before, after) => {
            // What was put in the place of the whole from elsewhere has the gaps it has.
            if (!transactions.some((one) => one.docChanged && !one.getMeta("preventUpdate"))) return null;
            const kept = new Set<string>();
            after.doc.forEach((node) => node.type === this.type && kept.add(node.attrs.key as string));
            const back = after.tr;
            before.doc.forEach((node, at) => {
              if (node.type !== this.type || kept.has(node.attrs.key as string)) return;
              const place = transactions.reduce((found, one) => one.mapping.map(found, -1), at);
              const $place = back.doc.resolve(Math.min(back.mapping.map(place), back.doc.content.size));
              back.insert($place.depth > 0 ? $place.after(1) : $place.pos, this.type.createAndFill(node.attrs)!);
            });
            return back.docChanged ? back : null;
          },
        }),
      ];
    },
  });

const MessageLink = Link.configure({
  openOnClick: false,
  autolink: false,
  isAllowedUri: (address) => canLeadTo(address),
}).extend({ excludes: "_" });

/** What the document of a message is made of. */
export const messageNodes = (stage: Stage, gapsStay: boolean) => [
  Document.extend({ content: "(block | gap)+" }),
  Line,
  Text,
  Bold,
  MessageLink,
  Dots,
  Numbers,
  Item,
  ListKeymap,
  Picture,
  Gapcursor,
  UndoRedo,
  ...(stage === "template" ? [Known, Prompted] : [filled(gapsStay)]),
];

/** What words are made of that are not formatted. */
export const wordNodes = {
  one: [Document.extend({ content: "paragraph" }), Paragraph, Text, Known],
  several: [Document, Paragraph, Text, Known],
};
