import { useMutation } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../api/problem";
import { SelectBox } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useMessageParts } from "./useMessageParts";

interface Props {
  label: string;
  help?: string;
  /** What is done with the message that was chosen. */
  onTake: (message: Schemas["MessageTemplate"], id: string) => void;
}

/** Takes the words of a message of the library. */
export function FromLibrary({ label, help, onTake }: Props) {
  const parts = useMessageParts();
  const take = useMutation({
    mutationFn: (id: string) =>
      orProblem(api.GET("/api/library/messages/{id}", { params: { path: { id } } })).then((view) => ({ id, view })),
    onSuccess: ({ id, view }) => onTake(view.content.message, id),
  });
  if (!parts || parts.messages.length === 0) return null;
  return (
    <>
      <SelectBox label={label} help={help} value="" onChange={(e) => e.target.value && take.mutate(e.target.value)}>
        <option value="">choose …</option>
        {parts.messages.map((one) => (
          <option key={one.key} value={one.key}>
            {one.name}
          </option>
        ))}
      </SelectBox>
      <Failure error={take.error} />
    </>
  );
}
