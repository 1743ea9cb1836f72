import { useMutation } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../../api/problem";
import { Button } from "../../../kit/Button";
import { useNotice } from "../../../kit/Notice";
import { Failure } from "../../../kit/states";
import { api } from "../../../api/client";
import { useSession } from "../../shell/session";
import { useSendKey } from "../../../api/useSendKey";
import { plainQuestion, type AnyQuestion } from "../form";
import { useWorkbench } from "../workbenchContext";

type Landing = Schemas["LandsIn"] | null;

const roles = [
  ["partner", "Their partner"],
  ["contact", "Another contact of theirs"],
  ["representative", "Who speaks for them"],
] as const;

const personParts = [
  ["name", "name"],
  ["email", "e-mail"],
  ["phone", "phone"],
  ["born", "birth date"],
  ["about", "about them"],
] as const;

const valueOf = (landing: Landing | undefined) =>
  !landing
    ? ""
    : landing.kind === "notes"
      ? `notes:${landing.scope}`
      : landing.kind === "person"
        ? `person:${landing.person}:${landing.part}`
        : `field:${landing.field}`;

function landingOf(value: string): Landing {
  const [kind, name = "", part = ""] = value.split(":");
  if (kind === "field") return { kind, field: name };
  if (kind === "notes") return { kind, scope: name as Schemas["RecordScope"] };
  if (kind === "person") return { kind, person: name as Schemas["PersonRole"], part: part as Schemas["PersonPart"] };
  return null;
}

interface Props {
  question: AnyQuestion;
  onChange: (landing: Landing) => void;
}

/** Where an answer lands: only what fits is offered, and a field can be made for it on the spot. */
export function LandsInPicker({ question, onChange }: Props) {
  const { facts, parts } = useWorkbench();
  const { landsIn } = question;
  const value = valueOf(landsIn);
  const fits = facts.questions[question.key]?.fields ?? [];
  const ofPeople = facts.questions[question.key]?.ofPeople ?? [];
  const fitting = parts.fields.filter((field) => fits.includes(field.key) || value === `field:${field.key}`);
  const { role } = useSession();
  const say = useNotice();
  const sendKey = useSendKey();
  const make = useMutation({
    mutationFn: (scope: Schemas["RecordScope"]) => {
      const body = { question: plainQuestion(question), scope };
      return orProblem(api.POST("/api/fields/for-question", { body, headers: sendKey.for(body) }));
    },
    onSuccess: (field, scope) => {
      sendKey.done();
      onChange({ kind: "field", field: field.key });
      say({ words: `“${field.label}” is a field of ${scope === "client" ? "clients" : "projects"} now.` });
    },
  });
  return (
    <>
      <select
        data-member="LandsInSetField.field LandsInAppendToNotes.scope LandsInSetPerson.person LandsInSetPerson.part"
        aria-label="Where it lands"
        className="w-full rounded-soft border border-edge bg-card px-2.5 py-1.5"
        value={value}
        onChange={(e) => onChange(landingOf(e.target.value))}
      >
        <option value="">nowhere else: it stays with the inquiry</option>
        {fitting.map((field) => (
          <option key={field.key} value={`field:${field.key}`}>
            {field.label}
          </option>
        ))}
        {value.startsWith("field:") && !parts.fields.some((field) => value === `field:${field.key}`) && (
          <option value={value}>
            {facts.questions[question.key]?.landsIn ?? "a field that is not there any more"}
          </option>
        )}
        <option value="notes:client">the notes of the client</option>
        <option value="notes:project">the notes of the project</option>
        {roles.map(([role, words]) => (
          <optgroup key={role} label={words}>
            {personParts
              .filter(([part]) => ofPeople.includes(part) || value === `person:${role}:${part}`)
              .map(([part, name]) => (
                <option key={part} value={`person:${role}:${part}`}>
                  {`${words}: ${name}`}
                </option>
              ))}
          </optgroup>
        ))}
      </select>
      {role === "owner" && (
        <p className="mt-1 flex flex-wrap items-center gap-x-3">
          <span className="text-slate">Make a field for it:</span>
          <Button weight="quiet" className="-ml-3" disabled={make.isPending} onClick={() => make.mutate("client")}>
            of the client
          </Button>
          <Button weight="quiet" className="-ml-3" disabled={make.isPending} onClick={() => make.mutate("project")}>
            of the project
          </Button>
        </p>
      )}
      <Failure error={make.error} />
    </>
  );
}
