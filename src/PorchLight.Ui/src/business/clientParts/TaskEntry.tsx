import { DayBox } from "../../kit/DayBox";
import { useState } from "react";
import { useMutation } from "@tanstack/react-query";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useFocusBack } from "../../kit/useFocusBack";
import { SelectBox, TextBox } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useProjectParts } from "./useProjectParts";

type Task = Schemas["TaskOnFile"];
type Words = Schemas["TaskWords"];

/** One task, to be ticked where it stands. */
export function TaskEntry({ task, withClient = false }: { task: Task; withClient?: boolean }) {
  const say = useNotice();
  const [isEditing, setEditing] = useState(false);
  const button = useFocusBack(isEditing);
  const path = { id: task.clientId!, task: task.id };
  const was: Words = { title: task.title, on: task.on, for: task.for, isDone: task.done !== null };
  const put = (from: Words, to: Words) =>
    orProblem(api.PUT("/api/clients/{id}/tasks/{task}", { params: { path }, body: { was: from, now: to } }));
  const change = useMutation({
    mutationFn: (part: Partial<Words>) => put(was, { ...was, ...part }),
    onSuccess: (after) => {
      setEditing(false);
      if (after.isDone && !was.isDone)
        say({
          words: `Done: ${after.title}.`,
          undo: async () => {
            await put(after, was);
          },
        });
    },
  });
  const remove = useMutation({
    mutationFn: () => orProblem(api.DELETE("/api/clients/{id}/tasks/{task}", { params: { path } })),
    onSuccess: () => {
      say({ words: `“${task.title}” is gone.` });
    },
  });
  if (isEditing)
    return (
      <li>
        <TaskForm
          isDate={task.isDate}
          start={was}
          action="Save"
          error={change.error}
          isPending={change.isPending}
          onDone={(words) => change.mutate(words)}
          onRemove={() => remove.mutate()}
          onClose={() => setEditing(false)}
        />
      </li>
    );
  return (
    <li className="flex items-start gap-2.5">
      {task.isDate ? (
        <span aria-hidden className="mt-1.5 size-2.5 shrink-0 rotate-45 border border-ink bg-lamp" />
      ) : (
        <input
          type="checkbox"
          aria-label={`Done: ${task.title}`}
          className="mt-0.5 size-[1.15rem] shrink-0 accent-dusk"
          checked={task.done !== null}
          disabled={change.isPending}
          onChange={(e) => change.mutate({ isDone: e.target.checked })}
        />
      )}
      <span className="min-w-0 flex-1 wrap-anywhere">
        <span className={task.done ? "text-slate line-through" : ""}>{task.title}</span>
        <span className={`block text-note ${task.isOverdue ? "font-semibold text-brick" : "text-slate"}`}>
          {task.done
            ? `done by ${task.done}`
            : [task.day && (task.isDate ? task.day : `${task.isOverdue ? "was due" : "due"} ${task.day}`), task.forName]
                .filter(Boolean)
                .join(", ")}
        </span>
        <Failure error={change.error ?? remove.error} />
      </span>
      {!withClient && (
        <Button weight="quiet" ref={button} aria-label={`Change: ${task.title}`} onClick={() => setEditing(true)}>
          Change
        </Button>
      )}
    </li>
  );
}

/** Task, by when and by whom. */
export function TaskForm(props: {
  isDate: boolean;
  start: Words;
  action: string;
  error: unknown;
  isPending: boolean;
  onDone: (words: Words) => void;
  onRemove?: () => void;
  onClose: () => void;
}) {
  const [words, setWords] = useState(props.start);
  const parts = useProjectParts();
  const findings = findingsOf(props.error);
  return (
    // Esc closes the box, and must not close the panel around it.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <form
      noValidate
      className="grid gap-2 rounded-soft border border-edge p-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (!props.isPending) props.onDone(words);
      }}
      onKeyDown={(e) => {
        if (e.key !== "Escape") return;
        e.preventDefault();
        e.stopPropagation();
        props.onClose();
      }}
    >
      <TextBox
        label={props.isDate ? "What happens" : "Task"}
        value={words.title}
        error={findings.get("title")}
        autoComplete="off"
        // eslint-disable-next-line jsx-a11y/no-autofocus -- whoever asked for the box goes on in it
        autoFocus
        onChange={(e) => setWords({ ...words, title: e.target.value })}
      />
      <DayBox
        label={props.isDate ? "On" : "Due (optional)"}
        value={words.on}
        error={findings.get("on")}
        onChange={(on) => setWords({ ...words, on })}
      />
      {!props.isDate && (
        <SelectBox
          label="Who does it"
          value={words.for ?? ""}
          error={findings.get("for")}
          onChange={(e) => setWords({ ...words, for: e.target.value || null })}
        >
          <option value="">anyone</option>
          {parts?.team.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </SelectBox>
      )}
      {findings.size === 0 && <Failure error={props.error} />}
      <span className="flex flex-wrap gap-2">
        <Button weight="main" type="submit" disabled={props.isPending}>
          {props.action}
        </Button>
        <Button weight="quiet" onClick={props.onClose}>
          Cancel
        </Button>
        {props.onRemove && (
          <Button weight="quiet" className="ml-auto" onClick={props.onRemove}>
            Remove
          </Button>
        )}
      </span>
    </form>
  );
}
