/** Words with places for what is known: "Thank you, {firstName|friend}." or "How wide, {answer:name}?" */
const place = /\{(answer:[a-z0-9-]+|[a-z][A-Za-z]*)(?:\|([^{}]*))?\}/g;

export interface Placeholder {
  /** "answer:" with the key of a question, or the name of a known value. */
  name: string;
  /** Contents while it is not known. */
  fallback: string;
}

/** Something known that can be set into words. */
export interface KnownChoice {
  name: string;
  words: string;
}

/** The known value that stands below a message. */
export const signatureName = "signature";

const write = ({ name, fallback }: Placeholder) => (fallback ? `{${name}|${fallback}}` : `{${name}}`);

/** Takes words apart into what is written and what is set in. */
function parts(words: string): (string | Placeholder)[] {
  const found: (string | Placeholder)[] = [];
  let at = 0;
  for (const match of words.matchAll(place)) {
    if (match.index > at) found.push(words.slice(at, match.index));
    found.push({ name: match[1]!, fallback: match[2] ?? "" });
    at = match.index + match[0].length;
  }
  if (at < words.length) found.push(words.slice(at));
  return found;
}

/** The words with dots where something is set in, for lines that only name a question. */
const plain = (words: string): string => words.replace(place, (_, __, fallback?: string) => fallback || "…");

export const KnownWords = { parts, write, plain };
