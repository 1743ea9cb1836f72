import { orProblem, type Schemas } from "../../api/problem";
import { useNotice } from "../../kit/Notice";
import { api } from "../../api/client";

type Draft = Schemas["MessageDraft"];

/** The words of a mail in this window: until they are sent, and again once they were taken back. */
export const keptMail = {
  read: (keptAs: string): Draft | null => {
    try {
      return JSON.parse(sessionStorage.getItem(keptAs) ?? "null") as Draft | null;
    } catch {
      return null;
    }
  },
  write: (keptAs: string, draft: Draft) => sessionStorage.setItem(keptAs, JSON.stringify(draft)),
  forget: (keptAs: string) => sessionStorage.removeItem(keptAs),
};

/**
 * Says that a mail goes, and takes it back for as long as it rests: nothing has happened by then, and its words are kept where they were
 * written.
 */
export function useMailGoing() {
  const say = useNotice();
  return ({ id, takeBackSeconds }: Schemas["MailGoing"], name: string, draft: Draft, keptAs: string) =>
    say(
      takeBackSeconds
        ? {
            words: `Your mail goes to ${name} in ${takeBackSeconds} seconds.`,
            undo: async () => {
              await orProblem(api.POST("/api/mail/{id}/take-back", { params: { path: { id } } }));
              keptMail.write(keptAs, draft);
              say({ words: `Nothing was sent. Your words to ${name} are kept.` });
            },
          }
        : { words: `Sent to ${name}.` },
    );
}
