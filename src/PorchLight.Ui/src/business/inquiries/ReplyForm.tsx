import { orProblem, type Schemas } from "../../api/problem";
import { api } from "../client";
import { WriteMail } from "../edits/WriteMail";

/** A first personal word, which keeps the promise. */
export function ReplyForm({ inquiry, onDone }: { inquiry: Schemas["InquiryView"]; onDone: () => void }) {
  return (
    <WriteMail
      client={inquiry.clientId}
      to={inquiry.email ?? ""}
      subject={`Re: ${inquiry.form}`}
      keepsSubject={false}
      keptAs={`porch-light:reply:${inquiry.id}`}
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
