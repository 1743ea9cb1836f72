import { useRef, useState } from "react";
import { Button } from "../../kit/Button";
import type { Schemas } from "../../api/problem";
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
  return (
    <>
      <ul className="grid gap-y-1.5">
        <Person name={mainContact} more="main contact" isMain />
        {!isEditing && others.map((one, index) => <Person key={index} {...one} />)}
      </ul>
      {isEditing ? (
        <EditField
          client={client}
          project={null}
          onFile={people}
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

function Person({ name, more, isMain }: { name: string; more: string; isMain?: boolean }) {
  return (
    <li className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-x-4">
      <span className={isMain ? "font-semibold" : undefined}>{name}</span>
      <span className="wrap-anywhere text-slate">{more}</span>
    </li>
  );
}
