import { orProblem, type Schemas } from "../../api/problem";
import { api } from "../../api/client";
import { WriteMail } from "../messages/WriteMail";

/** Where the words of a reply are kept until they are sent. */
export const replyKeptAs = (inquiry: string) => `porch-light:reply:${inquiry}`;

/** A first personal word, which keeps the promise. */
export function ReplyForm({ inquiry, onDone }: { inquiry: Schemas["InquiryView"]; onDone: () => void }) {
  return (
    <WriteMail
      client={inquiry.clientId}
      to={inquiry.email ?? ""}
      name={inquiry.name}
      subject={`Re: ${inquiry.form}`}
      keepsSubject={false}
      keptAs={replyKeptAs(inquiry.id)}
      sendWords="Send the reply"
      send={(draft, headers) =>
        orProblem(
          api.POST("/api/inquiries/{id}/reply", {
            params: { path: { id: inquiry.id } },
            body: { draft },
            headers,
          }),
        )
      }
      onSent={onDone}
      onLater={onDone}
    />
  );
}
