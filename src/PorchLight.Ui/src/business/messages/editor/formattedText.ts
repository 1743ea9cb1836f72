import { KnownWords, type Placeholder } from "../words";

/**
 * The formatting of messages, read and written as the server reads it (FormattedText in the core, which says what each sign means): a test
 * holds the two together. A text is its lines, since each line is formatted for itself.
 */
export interface Line {
  kind: "paragraph" | "list" | "numbered";
  runs: Run[];
}

/** What stands in a line: words, a placeholder for what is known, or a picture of the business's own files. */
export type Run = (
  | { kind: "words"; words: string }
  | { kind: "known"; placeholder: Placeholder }
  | { kind: "picture"; words: string; file: string }
) & {
  isBold?: boolean;
  /** Where it leads. */
  address?: string;
};

type Marks = Pick<Run, "isBold" | "address">;

const lineEnd = /\r\n|[\r\n\f\u0085\u2028\u2029]/;
const link = /(!?)\[((?:\\.|[^[\]\\])*)\]\(([^\s()]+)\)/y;
const fileKey = /^[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}$/i;

/** Stands for a placeholder while a line is read; a text has none of its own, for this character means that something is missing. */
const mask = "\uFFFC";

/**
 * Reads a text. Every text can be read.
 * @param hasPlaceholders Whether known values stand in it as placeholders; where they are set in already, braces are words.
 */
export function readText(text: string, hasPlaceholders: boolean): Line[] {
  let numbers = 0;
  return text.split(lineEnd).map((line) => {
    const next = `${numbers + 1}. `;
    const kind = line.startsWith("- ") && line.trim() ? "list" : line.startsWith(next) ? "numbered" : "paragraph";
    numbers = kind === "numbered" ? numbers + 1 : 0;
    const body = kind === "list" ? line.slice(2) : kind === "numbered" ? line.slice(next.length) : line;
    return { kind, runs: readRuns(body, hasPlaceholders) };
  });
}

/** What a text says where nothing is formatted; a known value that is not set in yet says nothing. */
export const plainText = (text: string) =>
  readText(text, false)
    .map((line) => line.runs.map((run) => (run.kind === "known" ? "" : run.words)).join(""))
    .join("\n");

function readRuns(body: string, hasPlaceholders: boolean): Run[] {
  const [line, placeholders] = masked(body.trim(), hasPlaceholders);
  const runs: Run[] = [];
  let [words, isBold, at] = ["", false, 0];
  /** The words with what stood where the masks are, in order. */
  const say = (said: string, marks: Marks) =>
    said.split(mask).forEach((part, index) => {
      if (index > 0) runs.push({ kind: "known", placeholder: readPlaceholder(placeholders.shift()!), ...marks });
      if (part) runs.push({ kind: "words", words: part, ...marks });
    });
  const end = () => {
    say(words, isBold ? { isBold } : {});
    words = "";
  };
  while (at < line.length) {
    link.lastIndex = at;
    const found = link.exec(line);
    if (line[at] === "\\" && isKept(line, at + 1)) {
      words += line[at + 1];
      at += 2;
    } else if (line.startsWith("**", at) && (isBold ? endsBold(line, at) : beginsBold(line, at))) {
      end();
      isBold = !isBold;
      at += 2;
    } else if (found && (found[1] ? fileKey.test(found[3]!) : found[2] && isAddress(found[3]!))) {
      end();
      const said = unescaped(found[2]!);
      if (found[1]) runs.push({ kind: "picture", words: unmasked(said, placeholders), file: found[3]!.toLowerCase() });
      else {
        const inside = placeholders.splice(0, said.split(mask).length - 1);
        const address = unmasked(found[3]!, placeholders);
        placeholders.unshift(...inside);
        say(said, { address });
      }
      at += found[0].length;
    } else words += line[at++];
  }
  end();
  return runs;
}

function masked(line: string, hasPlaceholders: boolean): [string, string[]] {
  const placeholders: string[] = [];
  const clean = line.replaceAll(mask, "");
  if (!hasPlaceholders) return [clean, placeholders];
  const parts = KnownWords.parts(clean).map((part) => {
    if (typeof part === "string") return part;
    placeholders.push(KnownWords.write(part));
    return mask;
  });
  return [parts.join(""), placeholders];
}

const unmasked = (words: string, placeholders: string[]) => words.replaceAll(mask, () => placeholders.shift()!);

function readPlaceholder(written: string): Placeholder {
  const { name, fallback } = KnownWords.parts(written)[0] as Placeholder;
  return { name, fallback: unescaped(fallback) };
}

const isKept = (line: string, at: number) =>
  "*[]!\\".includes(line[at] ?? " ") || ("-.".includes(line[at] ?? " ") && line[at + 1] === " ");

const endsBold = (line: string, at: number) => !/\s/.test(line[at - 1]!);

/** Whether bold words begin here, close to the mark, and also end. */
function beginsBold(line: string, from: number): boolean {
  if (/[\s*]/.test(line[from + 2] ?? " ")) return false;
  for (let at = from + 2; at < line.length; at++)
    if (line[at] === "\\") at++;
    else if (line.startsWith("**", at) && endsBold(line, at)) return true;
  return false;
}

function isAddress(address: string): boolean {
  const whole = address === mask ? "https://known.example" : address.replaceAll(mask, "known");
  return /^(https?:\/\/[^/?#]|mailto:.)/i.test(whole) && URL.canParse(whole);
}

/** Whether words can lead there: an address of the web or of mail, or one that is known only when the message goes. */
export const canLeadTo = (address: string) => isAddress(masked(address, true)[0]);

const unescaped = (words: string) => words.replace(/\\([*[\]!\\]|[-.](?= ))/g, "$1");

/** Writes lines so that they are read as what they are, with as few signs as that takes. */
export function writeText(lines: Line[], hasPlaceholders: boolean): string {
  let numbers = 0;
  return lines
    .map(({ kind, runs }) => {
      numbers = kind === "numbered" ? numbers + 1 : 0;
      const body = writeRuns(runs, hasPlaceholders);
      if (kind === "paragraph") return body.replace(/^(\d*)([-.]) /, "$1\\$2 ");
      return (kind === "list" ? "- " : `${numbers}. `) + body;
    })
    .join("\n");
}

function writeRuns(runs: Run[], hasPlaceholders: boolean): string {
  const plain = withSigns(runs, (words) => words);
  return shape(readRuns(plain, hasPlaceholders)) === shape(runs)
    ? plain
    : withSigns(runs, (words) => words.replace(/[*[\]!\\]/g, "\\$&"));
}

/** What a line comes to, letter by letter: blanks are neither bold nor at its ends. */
const shape = (runs: Run[]) =>
  runs
    .flatMap((run) => {
      const marks = JSON.stringify([run.isBold ?? false, run.address ?? null]);
      if (run.kind === "picture") return [JSON.stringify(["picture", run.words, run.file])];
      if (run.kind === "known") return [KnownWords.write(run.placeholder) + marks];
      return [...run.words].map((letter) => (/\s/.test(letter) && !run.address ? letter : letter + marks));
    })
    .join("\0")
    .replace(/^[\s\0]+|[\s\0]+$/g, "");

function withSigns(runs: Run[], keep: (words: string) => string): string {
  let written = "";
  for (let at = 0; at < runs.length;) {
    const first = runs[at]!;
    const others = runs.slice(at).findIndex((run) => run.kind === "picture" || !hasSameMarks(run, first));
    const group = first.kind === "picture" ? [first] : runs.slice(at, others < 0 ? undefined : at + others);
    at += group.length;
    written += inMarks(group, first, keep);
  }
  return written;
}

const hasSameMarks = (one: Run, other: Run) => !one.isBold === !other.isBold && one.address === other.address;

function inMarks(group: Run[], { isBold, address }: Marks, keep: (words: string) => string): string {
  const inside = (words: string) => words.replace(/[[\]\\]/g, "\\$&");
  const said = group
    .map((run) => {
      if (run.kind === "known") return writePlaceholder(run.placeholder);
      if (run.kind === "picture") return `![${inside(run.words)}](${run.file})`;
      return address ? inside(run.words) : keep(run.words);
    })
    .join("");
  if (address) return `[${said}](${address.replace(/[\s()]/g, (sign) => `%${sign.charCodeAt(0).toString(16)}`)})`;
  const [, before = "", words = "", behind = ""] = /^(\s*)(.*?)(\s*)$/s.exec(said) ?? [];
  return isBold && words ? `${before}**${words}**${behind}` : said;
}

// What stands for a value that is not known is read like any other words of the message.
const writePlaceholder = ({ name, fallback }: Placeholder) =>
  KnownWords.write({ name, fallback: fallback.replace(/[{}|]/g, "").replace(/[*[\]!\\]/g, "\\$&") });
