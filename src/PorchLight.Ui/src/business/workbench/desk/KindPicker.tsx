import { useMutation } from "@tanstack/react-query";
import { orProblem } from "../../../api/problem";
import { SelectBox } from "../../../kit/fields";
import { useNotice } from "../../../kit/Notice";
import { Failure } from "../../../kit/states";
import { api } from "../../../api/client";
import { changeItem, plainQuestion, type AnyQuestion, type QuestionKind } from "../form";
import { useWorkbench } from "../workbenchContext";

interface Props {
  question: AnyQuestion;
  inRows: boolean;
}

const isSame = (offered: QuestionKind, kind: QuestionKind) =>
  offered.kind === kind.kind &&
  !(offered.kind === "choice" && kind.kind === "choice" && (offered.several ?? false) !== (kind.several ?? false));

/** The kind of a question. Another one keeps what it can; what it cannot is said. */
export function KindPicker({ question, inRows }: Props) {
  const { parts, edit } = useWorkbench();
  const say = useNotice();
  const change = useMutation({
    mutationFn: (kind: QuestionKind) =>
      orProblem(api.POST("/api/forms/changed-kind", { body: { question: plainQuestion(question), kind } })),
    onSuccess: ({ question: changed, lost }) => {
      const { key, ...rest } = changed;
      edit((form) => changeItem(form, key, rest), `${key}.kind`);
      if (lost.length > 0) say({ words: lost.join(" ") });
    },
  });
  const offered = parts.kinds.filter((one) => one.inRows || !inRows || isSame(one.kind, question.kind));
  return (
    <>
      <SelectBox
        label="Kind of answer"
        value={parts.kinds.findIndex((one) => isSame(one.kind, question.kind))}
        onChange={(e) => change.mutate(parts.kinds[Number(e.target.value)]!.kind)}
      >
        {offered.map((one) => (
          <option key={one.words} value={parts.kinds.indexOf(one)}>
            {one.words}
          </option>
        ))}
      </SelectBox>
      <Failure error={change.error} />
    </>
  );
}
