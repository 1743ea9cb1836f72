import type { ComponentProps } from "react";
import { ConditionSentence } from "../../conditions/ConditionSentence";
import { useSubjects, type ConditionPlace } from "./useSubjects";

type Props = Omit<ComponentProps<typeof ConditionSentence>, "subjects"> & {
  /** Where the condition stands. */
  place: ConditionPlace;
};

/** A condition somewhere in the form that is worked on. */
export const ConditionEditor = ({ place, ...rest }: Props) => (
  <ConditionSentence subjects={useSubjects(place)} {...rest} />
);
