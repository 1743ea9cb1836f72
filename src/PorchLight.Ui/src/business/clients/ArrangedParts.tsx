import type { ReactNode } from "react";
import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { type Schemas } from "../../api/problem";
import { Section } from "../../kit/Panel";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";

type Part = Schemas["ArrangedPart"];

/** The parts of a view in the business's order: those that stand at the side beside the others, where there is room. */
export function ArrangedParts(props: {
  scope: Schemas["RecordScope"];
  /** The service of a project, whose arrangement may be its own. */
  service?: string | null;
  children: (part: Part) => ReactNode;
}) {
  const arrangements = useQuery(ask(["arrangements"], () => api.GET("/api/arrangements")));
  if (!arrangements.data) return arrangements.error ? <Failure error={arrangements.error} /> : <Skeleton rows={6} />;
  const { client, project, services } = arrangements.data;
  const own = services.find((one) => one.service === props.service)?.own;
  const parts = props.scope === "client" ? client.parts : (own ?? project).parts;
  const show = (beside: boolean) =>
    parts
      .filter((part) => part.beside === beside)
      .map((part) => {
        const inside = props.children(part);
        return (
          inside && (
            <Section key={part.key} title={part.title}>
              {inside}
            </Section>
          )
        );
      });
  return (
    <div className="grid gap-x-8 @3xl/panel:grid-cols-[minmax(0,4fr)_minmax(0,3fr)]">
      <div>{show(false)}</div>
      <div>{show(true)}</div>
    </div>
  );
}

/** The fields of a part that are there, in its order. */
export const fieldsOf = (part: Part, onFile: Schemas["FieldOnFile"][]) =>
  part.fields.flatMap((key) => onFile.find((one) => one.field.key === key) ?? []);
