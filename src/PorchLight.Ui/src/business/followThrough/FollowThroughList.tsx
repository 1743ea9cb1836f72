import { Menu, MenuItem } from "../../kit/Menu";
import { Page } from "../../kit/Page";
import { useState } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link, useNavigate } from "react-router";
import { orProblem, sentenceOf, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { say } from "../shell/say";
import { useTitle } from "../shell/useTitle";
import { useSendKey } from "../../api/useSendKey";
import { NewFollowThrough } from "./NewFollowThrough";

type Row = Schemas["FollowThroughRow"];

/** What follows by itself, or by a nod: each with what starts it, what ends it, and who is on it. */
export function FollowThroughList() {
  useTitle("Follow-through");
  const notice = useNotice();
  const [archived, setArchived] = useState(false);
  const list = useQuery(ask(["follow-throughs"], () => api.GET("/api/follow-throughs")));
  const turn = useMutation({
    mutationFn: ({ row, now }: { row: Row; now: Schemas["FollowThroughSwitch"] }) =>
      orProblem(
        api.PUT("/api/follow-throughs/{id}/switch", {
          params: { path: { id: row.id } },
          body: { was: { isOn: row.isOn, isArchived: row.isArchived }, now },
        }),
      ),
    onSuccess: async (_, { row, now }) => {
      if (now.isArchived !== row.isArchived)
        notice({
          words: now.isArchived ? "Put away. People already on it carry on." : "Back in the list, switched off.",
        });
    },
    onError: (error) => notice({ words: sentenceOf(error) }),
  });
  const rows = (list.data ?? []).filter((row) => row.isArchived === archived);
  const away = list.data?.filter((row) => row.isArchived).length ?? 0;
  return (
    <Page
      title="Follow-through"
      filters={
        (away > 0 || archived) && (
          <Button weight="quiet" onClick={() => setArchived(!archived)}>
            {archived ? "Back to the others" : `${away} put away`}
          </Button>
        )
      }
      actions={<NewFollowThrough />}
    >
      <p className="mb-4 max-w-3xl text-slate">
        What happens after someone writes, books or reaches a stage. Each person is on one at a time, and it stops as
        soon as they act.
      </p>
      <Failure error={list.error} />
      {list.isPending && <Skeleton />}
      {list.data && rows.length === 0 && (
        <Empty>
          {archived
            ? "Nothing has been put away."
            : "No follow-throughs yet. Start with a ready-made one; you can change every word."}
        </Empty>
      )}
      {rows.length > 0 && (
        <ul className="rounded-soft bg-card shadow-soft">
          {rows.map((row) => (
            <Line key={row.id} row={row} onSwitch={(now) => turn.mutate({ row, now })} />
          ))}
        </ul>
      )}
    </Page>
  );
}

function Line({ row, onSwitch }: { row: Row; onSwitch: (now: Schemas["FollowThroughSwitch"]) => void }) {
  return (
    <li
      className={`flex items-center gap-1 border-b border-line px-3 sm:gap-3 sm:px-4 last:border-0 hover:bg-mist/70 ${row.failing > 0 ? "bg-glow" : ""}`}
    >
      <label className="inline-flex w-16 shrink-0 items-center gap-2">
        <input
          type="checkbox"
          role="switch"
          aria-label={`${row.name} starts by itself`}
          className="size-[1.15rem] accent-dusk"
          checked={row.isOn}
          disabled={!row.isInForce || row.isArchived}
          onChange={(e) => onSwitch({ isOn: e.target.checked, isArchived: row.isArchived })}
        />
        <span aria-hidden>{row.isOn ? "on" : "off"}</span>
      </label>
      <Link
        to={`/follow-through/${row.id}`}
        className="flex min-h-14 min-w-0 flex-1 flex-wrap items-center gap-x-5 gap-y-1 py-2 -outline-offset-2"
      >
        <span className="min-w-0 basis-full sm:min-w-56 sm:flex-1 sm:basis-0">
          <strong className="block">{row.name}</strong>
          <span className="block text-note text-slate">
            Starts when {row.starts}.{row.ends && ` Ends if ${row.ends}.`}
          </span>
        </span>
        <span className="text-slate tabular-nums sm:w-36">
          {say(row.steps, "step")}
          {row.lastDay !== null && row.lastDay > 0 && `, ${say(row.lastDay, "day")}`}
        </span>
        <span className="tabular-nums sm:w-32">
          {row.people === 0 ? "nobody on it" : `${say(row.people, "person", "people")} on it`}
        </span>
        <span className="sm:w-44">
          {row.failing > 0 && <strong className="block text-brick">{row.failing} failed</strong>}
          {row.waiting > 0 && `${row.waiting} ${row.waiting === 1 ? "waits" : "wait"} for your nod`}
          {!row.isInForce && <span className="text-slate">not in force yet</span>}
          {row.isInForce && row.isWorkedOn && <span className="block text-slate">changed since</span>}
        </span>
      </Link>
      <RowMenu row={row} onSwitch={onSwitch} />
    </li>
  );
}

function RowMenu({ row, onSwitch }: { row: Row; onSwitch: (now: Schemas["FollowThroughSwitch"]) => void }) {
  const navigate = useNavigate();
  const notice = useNotice();
  const sendKey = useSendKey();
  const copy = useMutation({
    mutationFn: () =>
      orProblem(
        api.POST("/api/follow-throughs/{id}/copies", {
          params: { path: { id: row.id } },
          headers: sendKey.for(row.id),
        }),
      ),
    onSuccess: ({ id }) => {
      sendKey.done();
      void navigate(`/follow-through/${id}`);
    },
    onError: (error) => notice({ words: sentenceOf(error) }),
  });
  return (
    <Menu more={`More for ${row.name}`}>
      <MenuItem onSelect={() => copy.mutate()}>Copy</MenuItem>
      <MenuItem onSelect={() => onSwitch({ isOn: false, isArchived: !row.isArchived })}>
        {row.isArchived ? "Bring back" : "Put away"}
      </MenuItem>
    </Menu>
  );
}
