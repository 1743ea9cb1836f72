import { useRef, useState, type ReactNode } from "react";
import { useMutation } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { EditField, ValueHistory } from "./FieldRows";

interface Props {
  client: string;
  /** The main contact, who stands in the client's own fields. */
  mainContact: string;
  others: Schemas["PersonOnFile"][];
  people: Schemas["FieldOnFile"];
}

/** Everybody there is to talk to: the main contact first, then the others with how they stand to them. */
export function People({ client, mainContact, others, people }: Props) {
  const [isEditing, setEditing] = useState(false);
  const opener = useRef<HTMLButtonElement>(null);
  const say = useNotice();
  const path = { id: client };
  const hand = useMutation({
    mutationFn: (person: number) =>
      orProblem(
        api.PUT("/api/clients/{id}/main-contact", { params: { path }, body: { people: people.value!, person } }),
      ),
    onSuccess: (written, person) => {
      say({
        words: `${others[person]?.name} is the main contact now.`,
        undo: async () => {
          const body = written.map((one) => ({ field: one.field, was: one.now, now: one.was }));
          await orProblem(api.PUT("/api/clients/{id}/values", { params: { path }, body }));
        },
      });
    },
  });
  return (
    <>
      <ul className="grid gap-y-1.5">
        <Person name={mainContact} more="main contact" isMain />
        {!isEditing &&
          others.map((one, index) => (
            <Person key={index} {...one}>
              <Button
                weight="quiet"
                className="-ml-3"
                aria-label={`Make ${one.name} the main contact`}
                disabled={hand.isPending}
                onClick={() => hand.mutate(index)}
              >
                Make the main contact
              </Button>
            </Person>
          ))}
      </ul>
      <Failure error={hand.error} />
      {isEditing ? (
        <EditField
          client={client}
          project={null}
          onFile={people}
          start={people.value ? undefined : { kind: "rows", rows: [{ answers: {} }] }}
          onClose={() => {
            setEditing(false);
            requestAnimationFrame(() => opener.current?.focus());
          }}
        />
      ) : (
        <span className="mt-1 flex items-center">
          <Button ref={opener} weight="quiet" className="-ml-3" onClick={() => setEditing(true)}>
            {others.length === 0 ? "Add a person" : "Change who they are"}
          </Button>
          {people.value && <ValueHistory client={client} project={null} field={people.field} />}
        </span>
      )}
    </>
  );
}

function Person(props: { name: string; more: string; isMain?: boolean; children?: ReactNode }) {
  const { name, more, isMain, children } = props;
  return (
    <li className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-x-4">
      <span className={isMain ? "font-semibold" : undefined}>{name}</span>
      <span className="wrap-anywhere text-slate">
        {more}
        {children && <span className="block">{children}</span>}
      </span>
    </li>
  );
}
