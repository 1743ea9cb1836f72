import { useEffect } from "react";
import { HubConnectionBuilder, LogLevel } from "@microsoft/signalr";
import { useQueryClient } from "@tanstack/react-query";

/** The areas each thing on screen is made of. What is not named here is asked for again whatever changes. */
const madeOf: Record<string, string[]> = {
  choices: [],
  readable: [],
  join: [],
  "what-would-change": [],
  // What is being written is never taken away by what happens elsewhere; saving finds out.
  nod: [],
  clients: ["records", "fields", "inquiries", "brand"],
  client: ["records", "fields", "inquiries", "forms", "brand"],
  arrangements: ["fields", "brand"],
  "project-parts": ["brand", "identity"],
  recent: ["records"],
  "perhaps-same": ["records", "brand"],
  beside: ["records", "fields", "brand"],
  import: ["records"],
  imports: ["records"],
  "import-preview": ["records", "fields", "brand"],
  today: ["records", "inquiries", "followThrough", "messages", "brand"],
  erasing: [],
  leads: ["records"],
  "client-parts": ["records", "fields", "brand"],
  "value-history": ["records", "forms", "brand"],
  fields: ["fields", "records", "forms"],
  inquiries: ["inquiries", "records", "brand"],
  "inquiry-parts": ["inquiries", "forms", "records", "brand", "identity"],
  "write-down": ["forms", "brand"],
  // What is being chosen is never taken away by what happens elsewhere; saving finds out.
  told: [],
  sources: ["inquiries", "records", "brand"],
  "quick-replies": ["inquiries", "records", "brand"],
  "left-at-the-door": ["forms", "inquiries", "messages", "brand"],
  inquiry: ["inquiries", "records", "forms", "followThrough", "messages", "brand"],
  forms: ["forms", "inquiries", "brand"],
  form: ["forms", "inquiries", "brand"],
  "form-content": ["forms", "fields", "brand"],
  screening: ["forms", "fields", "brand"],
  "sorted-again": ["forms", "inquiries", "records", "brand"],
  "form-parts": ["fields", "brand"],
  "ready-forms": ["brand"],
  "form-service": ["forms", "brand"],
  files: ["forms", "brand"],
  lists: ["forms"],
  "form-settings": ["forms", "inquiries", "brand", "identity"],
  links: ["forms", "inquiries", "brand"],
  mail: ["messages", "records", "brand"],
  "practice-mail": ["messages", "records", "brand"],
  "follow-throughs": ["followThrough", "forms", "brand"],
  "follow-through": ["followThrough", "forms", "fields", "brand", "identity"],
  "follow-through-choices": ["followThrough", "forms", "fields", "brand", "identity"],
  "ready-follow-throughs": [],
  runs: ["followThrough", "records", "brand"],
  "people-on-it": ["followThrough", "records", "brand"],
  "people-to-rehearse": ["records"],
  "people-to-see-it-for": ["records"],
  // What is typed into a table is never taken away by what happens elsewhere; keeping it finds out.
  "plan-table": [],
  rehearsal: ["brand", "records"],
  clock: ["followThrough", "brand"],
  bell: ["records", "identity", "brand"],
  people: ["identity", "brand"],
  settings: ["brand"],
  "mail-settings": ["brand", "messages"],
  "mailbox-settings": ["brand"],
  conversation: ["messages", "records"],
  library: ["messages", "followThrough", "brand"],
  "message-parts": ["messages", "forms", "identity"],
  // What is being written is never taken away by what happens elsewhere; saving finds out.
  "library-message": [],
  "built-in": [],
  signatures: [],
  "message-preview": ["records", "brand"],
  webhooks: ["webhooks"],
  "webhook-calls": ["webhooks", "records", "brand"],
  "practice-notes": ["messages", "records", "brand"],
  "team-chat": ["messages", "brand"],
};

/** Listens while somebody is signed in; what is made of what changed is asked for again. */
export function useChanges(listening: boolean): void {
  const queries = useQueryClient();
  useEffect(() => {
    if (!listening) return;
    const changes = new HubConnectionBuilder()
      .withUrl("/changes")
      .withAutomaticReconnect()
      .configureLogging(LogLevel.None)
      .build();
    const refresh = (areas: string[] | null) =>
      void queries.invalidateQueries({
        predicate: ({ queryKey }) => {
          const parts = madeOf[String(queryKey[0])];
          return !parts || (areas ? parts.some((area) => areas.includes(area)) : parts.length > 0);
        },
      });
    changes.on("changed", refresh);
    changes.onreconnected(() => refresh(null));
    // Without these messages the screens still refresh whenever they are looked at again.
    changes.start().catch(() => {});
    return () => void changes.stop();
  }, [listening, queries]);
}
