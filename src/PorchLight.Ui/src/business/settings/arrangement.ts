import { arrayMove } from "@dnd-kit/sortable";
import type { Schemas } from "../../api/problem";

type Arrangement = Schemas["Arrangement"];
type Part = Schemas["ArrangedPart"];

/** An arrangement as lines from top to bottom: the head of a part, and below it its fields. */
export type Line = { id: string; part: Part; field?: undefined } | { id: string; field: string; part?: undefined };

export const holdsFields = (part: Part) => part.kind === "glance" || part.kind === "fields";

export const linesOf = ({ parts }: Arrangement): Line[] =>
  parts.flatMap((part): Line[] => [
    { id: `part:${part.key}`, part },
    ...part.fields.map((field) => ({ id: `field:${field}`, field })),
  ]);

/** Lines as an arrangement again. A field below a part that holds none goes to the nearest above that does, else below. */
function arranged(lines: Line[]): Arrangement {
  const parts = lines.flatMap((line) => (line.part ? [{ ...line.part, fields: [] as string[] }] : []));
  let at = -1;
  for (const line of lines) {
    if (line.part) at++;
    else {
      const above = parts.slice(0, at + 1).findLast(holdsFields);
      const part = above ?? parts.find(holdsFields);
      part?.fields.push(line.field);
    }
  }
  return { parts };
}

/** Puts a line where another stands: a field alone, the head of a part with all of its fields. */
export function moved(arrangement: Arrangement, id: string, to: string): Arrangement {
  const lines = linesOf(arrangement);
  const [from, over] = [lines.findIndex((line) => line.id === id), lines.findIndex((line) => line.id === to)];
  if (from < 0 || over < 0 || from === over) return arrangement;
  if (!lines[from]?.part) return arranged(arrayMove(lines, from, over));
  const place = (index: number) => lines.slice(0, index + 1).filter((line) => line.part).length - 1;
  return { parts: arrayMove(arrangement.parts, place(from), place(over)) };
}

/** Moves a line one place up or down; a field that comes to the head of a part goes on into the part beyond it. */
export function movedBy(arrangement: Arrangement, id: string, by: 1 | -1): Arrangement {
  const lines = linesOf(arrangement);
  const from = lines.findIndex((line) => line.id === id);
  const line = lines[from];
  if (!line) return arrangement;
  if (line.part) {
    const place = arrangement.parts.findIndex((part) => part.key === line.part.key);
    const to = place + by;
    return to < 0 || to >= arrangement.parts.length ? arrangement : { parts: arrayMove(arrangement.parts, place, to) };
  }
  const { parts } = arrangement;
  const at = parts.findIndex((part) => part.fields.includes(line.field));
  const index = parts[at]!.fields.indexOf(line.field);
  const within = index + by;
  if (within >= 0 && within < parts[at]!.fields.length)
    return { parts: parts.with(at, { ...parts[at]!, fields: arrayMove(parts[at]!.fields, index, within) }) };
  const others = parts.map((part, place) => ({ part, place })).filter(({ part }) => holdsFields(part));
  const next = others[others.findIndex(({ place }) => place === at) + by];
  if (!next) return arrangement;
  return {
    parts: parts.map((part, place) =>
      place === at
        ? { ...part, fields: part.fields.filter((field) => field !== line.field) }
        : place === next.place
          ? { ...part, fields: by > 0 ? [line.field, ...part.fields] : [...part.fields, line.field] }
          : part,
    ),
  };
}

/** Takes a part away; its fields go to the part above it, else to the one below. */
export const withoutPart = (arrangement: Arrangement, key: string): Arrangement =>
  arranged(linesOf(arrangement).filter((line) => line.part?.key !== key));
