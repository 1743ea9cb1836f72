import { Button } from "../../kit/Button";
import { TextBox } from "../../kit/fields";
import { newKey } from "../../kit/newKey";
import type { Schemas } from "../../api/problem";
import { KnownWordsBox, type KnownChoice } from "./KnownWordsBox";
import { EnclosedFields } from "./EnclosedFields";
import { useMessageParts } from "./useMessageParts";

type Message = Schemas["MessageTemplate"];
type Part = Message["parts"][number];

/** What is known of everybody a message goes to. */
export const known: KnownChoice[] = [
  { name: "firstName", words: "Their first name" },
  { name: "name", words: "Their whole name" },
  { name: "business", words: "The name of your business" },
  { name: "owner", words: "Your name" },
  { name: "promise", words: "When you answer (by Tuesday 15:00)" },
  { name: "signature", words: "The signature" },
];

interface Props {
  message: Message;
  onChange: (message: Message) => void;
  /** What can be set into it. */
  choices?: KnownChoice[];
  /** Whether the program sends it with nobody there to fill a gap, and nothing beside it. */
  isByItself?: boolean;
}

/** A message before it is about anybody: words with known values in them, and gaps. */
export function MessageFields({ message, onChange, choices = known, isByItself = false }: Props) {
  const parts = useMessageParts();
  const set = (key: string, next: Part) =>
    onChange({ ...message, parts: message.parts.map((part) => (part.key === key ? next : part)) });
  const remove = (key: string) => onChange({ ...message, parts: message.parts.filter((part) => part.key !== key) });
  const add = (part: Part) => onChange({ ...message, parts: [...message.parts, part] });
  return (
    <div className="grid gap-3">
      <KnownWordsBox
        label="Subject"
        choices={choices}
        isAlwaysKnown={isByItself}
        value={message.subject}
        onChange={(subject) => onChange({ ...message, subject })}
      />
      {message.parts.map((part, index) => (
        <div
          key={part.key}
          className={part.kind === "gap" ? "rounded-soft border-2 border-dashed border-dusk bg-glow p-3" : ""}
        >
          {part.kind === "gap" ? (
            <TextBox
              label="A gap you fill each time"
              help="What belongs there, like “one line about their place”."
              value={part.prompt}
              onChange={(e) => set(part.key, { ...part, prompt: e.target.value })}
            />
          ) : (
            <KnownWordsBox
              label={index === 0 ? "What it says" : "and then"}
              lines="several"
              choices={choices}
              isAlwaysKnown={isByItself}
              pictures={parts?.pictures ?? []}
              value={part.text}
              onChange={(text) => set(part.key, { ...part, text })}
            />
          )}
          {message.parts.length > 1 && (
            <Button weight="quiet" className="-ml-3" onClick={() => remove(part.key)}>
              {part.kind === "gap" ? "Remove the gap" : "Remove these words"}
            </Button>
          )}
        </div>
      ))}
      {!isByItself && (
        <>
          <p className="flex flex-wrap gap-2">
            <Button onClick={() => add({ kind: "gap", key: newKey().slice(0, 8), prompt: "" })}>Add a gap</Button>
            <Button onClick={() => add({ kind: "text", key: newKey().slice(0, 8), text: "" })}>Add more words</Button>
          </p>
          <EnclosedFields
            enclosed={message.enclosed}
            parts={parts}
            onChange={(enclosed) => onChange({ ...message, enclosed })}
          />
        </>
      )}
    </div>
  );
}
