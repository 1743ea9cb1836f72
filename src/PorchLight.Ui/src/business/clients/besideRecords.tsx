import type { ReactNode } from "react";
import type { Schemas } from "../../api/problem";
import { Section, TimelineList } from "../../kit/Panel";
import { Conversation } from "../messages/Conversation";
import { Meetings } from "../meetings/Meetings";
import { Runs } from "../runs/Runs";

type Part = (props: { client: Schemas["ClientView"] }) => ReactNode;

/** What areas show of a client beside their records, from the top down. An area adds its part here. */
export const besideRecords: Record<string, Part> = {
  meetings: ({ client }) => <Meetings client={client.id} name={client.name} inquiry={null} />,
  runs: ({ client }) => <Runs client={client.id} project={null} startsFor={client.projects[0]?.id ?? null} />,
  conversation: ({ client }) => <Conversation client={client.id} />,
  timeline: ({ client }) => (
    <Section title="What happened">
      <TimelineList entries={client.timeline} />
    </Section>
  ),
};
