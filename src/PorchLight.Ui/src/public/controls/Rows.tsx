import { useEffect, useRef, useState, type ComponentType } from "react";
import { newKey } from "../../kit/newKey";
import { useQuestionContext } from "../questionContext";
import type { Answer, Answers } from "../views";
import { answerOf, quietButton, type ControlProps, type FieldProps } from "./control";

type Row = Answers;

interface Props extends ControlProps<"rows"> {
  /** Draws a question of a row, as it would stand on a page. */
  Field: ComponentType<FieldProps>;
}

/** A repeating group. Rows move by buttons, so that it works by keyboard, by touch and with a screen reader alike. */
export function Rows({ place, control, answer, onChange, Field }: Props) {
  const { errors, shown } = useQuestionContext();
  const given = answerOf(answer, "rows")?.rows.map((row) => row.answers as Row);
  const rows = given ?? [];
  // Rows have no names of their own; these keep each one's fields with it when it moves.
  const [names, setNames] = useState<string[]>([]);
  const named = rows.map((_, index) => names[index] ?? `${index}`);
  const [gone, setGone] = useState<{ index: number; row: Row } | null>(null);
  const [said, setSaid] = useState("");
  const focusOn = useRef<string | null>(null);
  const list = useRef<HTMLDivElement>(null);

  // A new row is where one goes on writing, as soon as it is there.
  useEffect(() => {
    if (!focusOn.current) return;
    const row = list.current?.querySelector<HTMLElement>(`[data-row="${focusOn.current}"]`);
    const field = row?.querySelector<HTMLElement>("input, select, textarea");
    if (!field) return;
    field.focus();
    focusOn.current = null;
  });

  // The way back from taking one away is where one goes on.
  const back = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (gone) back.current?.focus();
  }, [gone]);

  const set = (next: Row[], nextNames: string[]) => {
    setNames(nextNames);
    onChange(next.length === 0 ? undefined : { kind: "rows", rows: next.map((answers) => ({ answers })) });
  };
  const insert = (index: number, row: Row, words: string) => {
    const name = newKey();
    set(rows.toSpliced(index, 0, row), named.toSpliced(index, 0, name));
    setGone(null);
    setSaid(words);
    focusOn.current = name;
  };
  const move = (index: number, by: number) => {
    const to = index + by;
    const swap = <T,>(all: T[]) => all.toSpliced(index, 1).toSpliced(to, 0, all[index]!);
    set(swap(rows), swap(named));
    setSaid(`${called(index)} is now number ${to + 1}.`);
  };
  const takeAway = (index: number) => {
    setGone({ index, row: rows[index]! });
    setSaid(`${called(index)} was removed.`);
    set(rows.toSpliced(index, 1), named.toSpliced(index, 1));
  };
  const called = (index: number) => `${control.called[0]!.toUpperCase()}${control.called.slice(1)} ${index + 1}`;

  return (
    <div ref={list} className="grid gap-3">
      {rows.map((row, index) => {
        const rowPlace = `${place}/${index}`;
        const error = errors.get(rowPlace);
        // A row that was just added is drawn at once; what else it asks the server says in a moment.
        const isNew = !control.questions.some((question) => shown.has(`${rowPlace}/${question.key}`));
        return (
          <fieldset
            key={named[index]}
            id={`q-${rowPlace}`}
            data-row={named[index]}
            tabIndex={-1}
            aria-describedby={error ? `q-${rowPlace}-error` : undefined}
            className={`min-w-0 rounded-soft border p-3 pt-1 sm:p-4 sm:pt-1 ${error ? "border-2 border-brick" : "border-edge"}`}
          >
            <legend className="px-1 font-semibold">{called(index)}</legend>
            {error && (
              <p id={`q-${rowPlace}-error`} className="mb-2 border-l-4 border-brick pl-2 font-semibold text-brick">
                {error}
              </p>
            )}
            <div className="grid grid-cols-1 items-end gap-x-4 sm:grid-cols-6">
              {control.questions.map((question) => (
                <Field
                  key={question.key}
                  question={question}
                  place={`${rowPlace}/${question.key}`}
                  isNew={isNew}
                  answer={row[question.key] ?? undefined}
                  onChange={(cell) => set(rows.with(index, filled(row, question.key, cell)), named)}
                />
              ))}
            </div>
            <div className="flex flex-wrap gap-2">
              <RowButton
                onPress={() => insert(index + 1, { ...row }, `${called(index)} is copied.`)}
                off={rows.length >= control.most}
                label={`Copy ${called(index)}`}
              >
                Copy
              </RowButton>
              <RowButton onPress={() => move(index, -1)} off={index === 0} label={`Move ${called(index)} up`}>
                Up
              </RowButton>
              <RowButton
                onPress={() => move(index, 1)}
                off={index === rows.length - 1}
                label={`Move ${called(index)} down`}
              >
                Down
              </RowButton>
              <RowButton onPress={() => takeAway(index)} off={false} label={`Remove ${called(index)}`}>
                Remove
              </RowButton>
            </div>
          </fieldset>
        );
      })}
      <p role="status" className={gone ? "" : "sr-only"}>
        {said}{" "}
        {gone && (
          <button
            ref={back}
            type="button"
            className="min-h-11 font-semibold underline"
            onClick={() => insert(gone.index, gone.row, `${called(gone.index)} is back.`)}
          >
            Put it back
          </button>
        )}
      </p>
      {rows.length < control.most ? (
        <button type="button" className={`${quietButton} w-fit`} onClick={() => insert(rows.length, {}, "")}>
          Add {rows.length === 0 ? "a" : "another"} {control.called}
        </button>
      ) : (
        <p className="text-slate">This is as many as you can add ({control.most}).</p>
      )}
    </div>
  );
}

function filled(row: Row, key: string, cell: Answer | undefined): Row {
  const next = { ...row };
  if (cell) next[key] = cell;
  else delete next[key];
  return next;
}

// A button that does nothing for now stays where it is, so that the focus is not lost at either end of the list.
function RowButton(props: { onPress: () => void; off: boolean; label: string; children: string }) {
  return (
    <button
      type="button"
      aria-label={props.label}
      aria-disabled={props.off}
      onClick={() => !props.off && props.onPress()}
      className={quietButton}
    >
      {props.children}
    </button>
  );
}
