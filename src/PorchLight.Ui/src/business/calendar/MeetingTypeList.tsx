import { useState, type FormEvent } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { findingsOf, orProblem } from "../../api/problem";
import { useSendKey } from "../../api/useSendKey";
import { Button, buttonLook } from "../../kit/Button";
import { Dialog, DialogClose } from "../../kit/Dialog";
import { TextBox } from "../../kit/fields";
import { Page } from "../../kit/Page";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { useSession } from "../shell/session";
import { useTitle } from "../shell/useTitle";
import { CalendarTabs } from "./CalendarTabs";

/** The kinds of meetings that can be booked. */
export function MeetingTypeList() {
  useTitle("Meeting types");
  const { role } = useSession();
  const types = useQuery(ask(["meeting-types"], () => api.GET("/api/meeting-types")));
  return (
    <Page back={<CalendarTabs />} title="Meeting types" actions={role === "owner" && <NewType />}>
      <p className="mb-4 max-w-3xl text-slate">
        What people can book: how long it is, where, with whom and when. Each has a link of its own.
      </p>
      <Failure error={types.error} />
      {types.isPending && <Skeleton />}
      {types.data?.length === 0 && (
        <Empty>Nothing can be booked yet. Add a meeting type, and its link shows your free times.</Empty>
      )}
      {!!types.data?.length && (
        <ul className="divide-y divide-line rounded-soft bg-card shadow-soft">
          {types.data.map((type) => (
            <li key={type.id} className="px-4 py-3">
              <span className="flex flex-wrap items-baseline gap-x-3">
                <Link className="font-semibold underline" to={`/calendar/types/${type.id}`}>
                  {type.name}
                </Link>
                <span className="text-slate">{type.summary}</span>
                {(type.isArchived || type.isPaused) && (
                  <strong>{type.isArchived ? "archived" : "paused: nobody can book it"}</strong>
                )}
                <span className="ml-auto text-slate">
                  {type.upcoming === 0 ? "none to come" : `${type.upcoming} to come`}
                </span>
              </span>
              {type.note && <p className="mt-1 border-l-4 border-brick pl-2 font-semibold text-brick">{type.note}</p>}
            </li>
          ))}
        </ul>
      )}
    </Page>
  );
}

function NewType() {
  const [isOpen, setOpen] = useState(false);
  const [name, setName] = useState("");
  const navigate = useNavigate();
  const sendKey = useSendKey();
  const make = useMutation({
    mutationFn: () => {
      const body = { name };
      return orProblem(api.POST("/api/meeting-types", { body, headers: sendKey.for(body) }));
    },
    onSuccess: ({ id }) => {
      sendKey.done();
      void navigate(`/calendar/types/${id}`);
    },
  });
  return (
    <Dialog
      open={isOpen}
      onOpenChange={setOpen}
      trigger={<Button weight="main">A new meeting type</Button>}
      title="A new meeting type"
    >
      <form
        noValidate
        className="grid gap-3"
        onSubmit={(event: FormEvent) => {
          event.preventDefault();
          if (!make.isPending) make.mutate();
        }}
      >
        <TextBox
          label="Name"
          help="What people read who book it, like A first talk."
          value={name}
          error={findingsOf(make.error).get("name")}
          onChange={(e) => setName(e.target.value)}
        />
        {findingsOf(make.error).size === 0 && <Failure error={make.error} />}
        <span className="flex gap-2">
          <Button weight="main" type="submit" disabled={make.isPending}>
            Add it
          </Button>
          <DialogClose className={buttonLook("quiet")}>Cancel</DialogClose>
        </span>
      </form>
    </Dialog>
  );
}
