import type { JSONContent } from "@tiptap/core";
import type { Schemas } from "../../../api/problem";
import { readText, writeText, type Line, type Run } from "./formattedText";

export type Part = Schemas["MessageDraft"]["parts"][number];

/** A message before it is about anybody has known values in it and gaps that say what belongs there; a draft has gaps to fill. */
export type Stage = "template" | "draft";

/** The parts of a message as the document in which one writes. */
export function readParts(parts: Part[], stage: Stage): JSONContent {
  const content: JSONContent[] = [];
  parts.forEach((part, index) => {
    if (part.kind === "gap") return void content.push(readGap(part, stage));
    // Between two parts of words stands an empty line when they are sent.
    if (parts[index - 1]?.kind === "text") content.push({ type: "paragraph" });
    content.push(...readBlocks(part.text, stage, part.key));
  });
  return { type: "doc", content: content.length > 0 ? content : [{ type: "paragraph" }] };
}

function readGap({ key, prompt, filled }: Extract<Part, { kind: "gap" }>, stage: Stage): JSONContent {
  const words = prompt ? [{ type: "text", text: prompt }] : [];
  return {
    type: "gap",
    attrs: { key, prompt },
    content: stage === "draft" ? readBlocks(filled ?? "", stage) : words,
  };
}

/** Words as blocks of the document. */
export function readBlocks(text: string, stage: Stage, part: string | null = null): JSONContent[] {
  const blocks: JSONContent[] = [];
  for (const line of readText(text, stage === "template")) {
    const paragraph = { type: "paragraph", content: line.runs.map(readRun) };
    if (line.kind === "paragraph") {
      blocks.push({ ...paragraph, attrs: { part } });
      continue;
    }
    const type = line.kind === "list" ? "bulletList" : "orderedList";
    if (blocks.at(-1)?.type !== type) blocks.push({ type, attrs: { part }, content: [] });
    blocks.at(-1)!.content!.push({ type: "listItem", content: [paragraph] });
  }
  return blocks;
}

function readRun(run: Run): JSONContent {
  const marks = [
    ...(run.isBold ? [{ type: "bold" }] : []),
    ...(run.address ? [{ type: "link", attrs: { href: run.address } }] : []),
  ];
  if (run.kind === "words") return { type: "text", text: run.words, marks };
  if (run.kind === "known") return { type: "known", attrs: { ...run.placeholder }, marks };
  return { type: "picture", attrs: { file: run.file, words: run.words } };
}

/** The document as the parts of a message. What was a part of its own stays one for as long as an empty line parts it from the last. */
export function writeParts(doc: JSONContent, stage: Stage): Part[] {
  const parts: Part[] = [];
  const used = new Set<string>();
  const named = (key: string) => {
    let name = key;
    for (let again = 2; used.has(name); again++) name = `${key}-${again}`;
    used.add(name);
    return name;
  };
  let [lines, key] = [[] as Line[], null as string | null];
  const endWords = () => {
    const text = withoutEmptyEnds(lines);
    const behind = parts.at(-1);
    if (text.length > 0)
      parts.push({
        kind: "text",
        key: named(key ?? (behind ? `after-${behind.key}` : "text")),
        text: writeText(text, stage === "template"),
      });
    [lines, key] = [[], null];
  };
  for (const block of doc.content ?? []) {
    if (block.type === "gap") {
      endWords();
      parts.push(writeGap(block, named(block.attrs!.key as string), stage));
      continue;
    }
    const part = (block.attrs?.part ?? null) as string | null;
    if (part !== null && key !== null && part !== key && lines.length > 0 && isEmpty(lines.at(-1)!)) endWords();
    key ??= part;
    lines.push(...writeBlock(block));
  }
  endWords();
  return parts.length > 0 ? parts : [{ kind: "text", key: "text", text: "" }];
}

function writeGap(gap: JSONContent, key: string, stage: Stage): Part {
  const words = (gap.content ?? []).map((one) => one.text ?? "").join("");
  if (stage === "template") return { kind: "gap", key, prompt: words };
  return { kind: "gap", key, prompt: gap.attrs!.prompt as string, filled: writeBlocks(gap.content ?? [], stage) };
}

/** Blocks of the document as words. */
export const writeBlocks = (blocks: JSONContent[], stage: Stage) =>
  writeText(withoutEmptyEnds(blocks.flatMap(writeBlock)), stage === "template");

function writeBlock(block: JSONContent): Line[] {
  if (block.type === "paragraph") return [{ kind: "paragraph", runs: (block.content ?? []).map(writeRun) }];
  const kind = block.type === "bulletList" ? "list" : "numbered";
  return (block.content ?? []).map((item) => ({
    kind,
    runs: (item.content?.[0]?.content ?? []).map(writeRun),
  }));
}

function writeRun(node: JSONContent): Run {
  const href: unknown = node.marks?.find((mark) => mark.type === "link")?.attrs?.href;
  const marks = {
    ...(node.marks?.some((mark) => mark.type === "bold") ? { isBold: true } : {}),
    ...(typeof href === "string" ? { address: href } : {}),
  };
  const attrs = node.attrs as Record<string, string>;
  if (node.type === "known")
    return { kind: "known", placeholder: { name: attrs.name!, fallback: attrs.fallback! }, ...marks };
  if (node.type === "picture") return { kind: "picture", words: attrs.words!, file: attrs.file! };
  return { kind: "words", words: node.text ?? "", ...marks };
}

const isEmpty = (line: Line) => line.runs.every((run) => run.kind === "words" && !run.words.trim());

/** An empty line or item at either end says nothing. */
function withoutEmptyEnds(lines: Line[]): Line[] {
  const first = lines.findIndex((line) => !isEmpty(line));
  return first < 0 ? [] : lines.slice(first, lines.findLastIndex((line) => !isEmpty(line)) + 1);
}
