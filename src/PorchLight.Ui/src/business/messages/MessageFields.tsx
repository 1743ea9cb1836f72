import type { Schemas } from "../../api/problem";
import { EnclosedFields } from "./EnclosedFields";
import { MessageEditor } from "./editor/MessageEditor";
import { KnownWordsBox } from "./KnownWordsBox";
import { useMessageParts } from "./useMessageParts";
import { signatureName, type KnownChoice } from "./words";

type Message = Schemas["MessageTemplate"];

/** What is known of everybody a message goes to. */
export const known: KnownChoice[] = [
  { name: "firstName", words: "Their first name" },
  { name: "name", words: "Their whole name" },
  { name: "business", words: "The name of your business" },
  { name: "owner", words: "Your name" },
  { name: "promise", words: "When you answer (by Tuesday 15:00)" },
  { name: "meeting", words: "When the meeting is (Thursday 3 December, 15:00)" },
  { name: signatureName, words: "The signature" },
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
  const sender = message.enclosed?.sender ?? null;
  const signature = parts?.signatures.find((one) => one.sender === sender) ?? parts?.signatures[0];
  return (
    <div className="grid gap-3">
      <KnownWordsBox
        label="Subject"
        choices={choices.filter((one) => one.name !== signatureName)}
        isAlwaysKnown={isByItself}
        value={message.subject}
        onChange={(subject) => onChange({ ...message, subject })}
      />
      <MessageEditor
        label="What it says"
        stage="template"
        choices={choices}
        isAlwaysKnown={isByItself}
        hasGaps={!isByItself}
        pictures={parts?.pictures}
        signature={signature?.words}
        parts={message.parts}
        onChange={(next) => onChange({ ...message, parts: next })}
      />
      {!isByItself && (
        <EnclosedFields
          enclosed={message.enclosed}
          parts={parts}
          onChange={(enclosed) => onChange({ ...message, enclosed })}
        />
      )}
    </div>
  );
}
