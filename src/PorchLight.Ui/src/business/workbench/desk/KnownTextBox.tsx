import type { ComponentProps } from "react";
import { KnownWordsBox } from "../../messages/KnownWordsBox";
import { useKnownChoices } from "./useKnownChoices";

type Props = Omit<ComponentProps<typeof KnownWordsBox>, "choices"> & {
  /** The key of what the words belong to; what is asked before it can be set in. */
  place: string;
  /** Whether the words are those of a send-off, which know more. */
  atTheEnd?: boolean;
};

/** Words somewhere in the form that is worked on. */
export const KnownTextBox = ({ place, atTheEnd, ...rest }: Props) => (
  <KnownWordsBox choices={useKnownChoices(place, atTheEnd)} {...rest} />
);
