import { useState } from "react";
import { useMutation } from "@tanstack/react-query";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useFocusBack } from "../../kit/useFocusBack";
import { api } from "../../api/client";
import { TaskEntry, TaskForm } from "../clientParts/TaskEntry";
import { useSendKey } from "../../api/useSendKey";

type Task = Schemas["TaskOnFile"];
type Words = Schemas["TaskWords"];

interface Props {
  client: string;
  /** The project they are about; null for the client. */
  project: string | null;
  tasks: Task[];
}

/** Task, the days to think of, and a place to add another. */
export function Tasks({ client, project, tasks }: Props) {
  const sendKey = useSendKey();
  const [adding, setAdding] = useState<"task" | "date" | null>(null);
  const taskButton = useFocusBack(adding === "task");
  const dateButton = useFocusBack(adding === "date");
  const [showsDone, setShowsDone] = useState(false);
  const open = tasks.filter((one) => !one.done);
  const done = tasks.filter((one) => one.done);
  const add = useMutation({
    mutationFn: (words: Words) => {
      const body = { projectId: project, isDate: adding === "date", title: words.title, on: words.on, for: words.for };
      return orProblem(
        api.POST("/api/clients/{id}/tasks", { params: { path: { id: client } }, body, headers: sendKey.for(body) }),
      );
    },
    onSuccess: () => {
      sendKey.done();
      setAdding(null);
    },
  });
  return (
    <>
      {open.length > 0 && (
        <ul className="mb-2 grid gap-1.5">
          {open.map((one) => (
            <TaskEntry key={one.id} task={one} />
          ))}
        </ul>
      )}
      {adding ? (
        <TaskForm
          isDate={adding === "date"}
          start={{ title: "", on: null, for: null, isDone: false }}
          action="Add it"
          error={add.error}
          isPending={add.isPending}
          onDone={(words) => add.mutate(words)}
          onClose={() => {
            setAdding(null);
            add.reset();
          }}
        />
      ) : (
        <span className="-ml-3 flex flex-wrap">
          <Button ref={taskButton} weight="quiet" onClick={() => setAdding("task")}>
            Add a task
          </Button>
          <Button ref={dateButton} weight="quiet" onClick={() => setAdding("date")}>
            Add a date
          </Button>
          {done.length > 0 && (
            <Button weight="quiet" aria-expanded={showsDone} onClick={() => setShowsDone(!showsDone)}>
              {done.length} done
            </Button>
          )}
        </span>
      )}
      {showsDone && (
        <ul className="mt-1 grid gap-1.5">
          {done.map((one) => (
            <TaskEntry key={one.id} task={one} />
          ))}
        </ul>
      )}
    </>
  );
}
