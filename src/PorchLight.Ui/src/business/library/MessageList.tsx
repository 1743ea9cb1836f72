import { Page } from "../../kit/Page";
import { useEffect, useRef, useState, type FormEvent } from "react";
import { useMutation } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { TextBox } from "../../kit/fields";
import { RowItem } from "../../kit/Rows";
import { Failure } from "../../kit/states";
import { useRowArrows } from "../../kit/useRowArrows";
import { api } from "../../api/client";
import { useList } from "../lists/list";
import { ListBody, SaveList } from "../lists/ListBody";
import { say } from "../shell/say";
import { useTitle } from "../shell/useTitle";
import { useSendKey } from "../../api/useSendKey";
import { BuiltInList } from "./BuiltInList";
import { LibraryTabs } from "./LibraryTabs";
import { Signatures } from "./Signatures";

type Row = Schemas["LibraryRow"];

/** The messages that are kept to be used again, by folder, each with where it is used. */
export function MessageList() {
  useTitle("Library");
  useRowArrows();
  const list = useList("/api/library/messages", "/library");
  const [isNaming, setNaming] = useState(false);
  const isByFolder = (list.asked.order ?? "folder") === "folder";
  return (
    <Page
      title="Library"
      actions={
        <>
          <SaveList list={list} />
          <Button weight="main" aria-expanded={isNaming} onClick={() => setNaming(true)}>
            A new message
          </Button>
        </>
      }
    >
      <LibraryTabs />
      <p className="mb-4 max-w-3xl text-slate">
        Messages you use again and again. Steps of follow-throughs and answers by hand take their words from here; what
        was taken stays as it was until you take it anew.
      </p>
      {isNaming && <NewMessage onCancel={() => setNaming(false)} />}
      <ListBody
        list={list}
        one="message"
        many="messages"
        search="Search names, subjects and texts"
        all="All messages"
        empty="No messages yet. Start with the one you type most often."
        groupOf={isByFolder ? (row) => row.folder : undefined}
      >
        {(row) => <MessageRow row={row} />}
      </ListBody>
      <BuiltInList />
      <Signatures />
    </Page>
  );
}

function MessageRow({ row }: { row: Row }) {
  return (
    <RowItem className="grid gap-x-6 px-4 py-2 sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <span className="min-w-0">
        <Link data-row to={`/library/${row.id}`} className="font-semibold underline">
          {row.name}
        </Link>
        <span className="block truncate text-slate">{row.subject || "no subject yet"}</span>
        {row.finding && <span className="block text-brick">{row.finding}</span>}
      </span>
      <span className="text-slate">
        {row.usedIn.length === 0
          ? "No follow-through uses it."
          : `Used in ${[...new Set(row.usedIn.map((use) => `“${use.followThrough}”`))].join(", ")}.`}
        {row.gaps > 0 && ` ${say(row.gaps, "gap", "gaps")} to fill each time.`}
        <span className="block">Changed {row.changed}.</span>
      </span>
    </RowItem>
  );
}

function NewMessage({ onCancel }: { onCancel: () => void }) {
  const navigate = useNavigate();
  const sendKey = useSendKey();
  const [name, setName] = useState("");
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => form.current?.querySelector("input")?.focus(), []);
  const make = useMutation({
    mutationFn: () => {
      const body = { name, folder: "", copyOf: null };
      return orProblem(api.POST("/api/library/messages", { body, headers: sendKey.for(body) }));
    },
    onSuccess: ({ id }) => {
      sendKey.done();
      void navigate(`/library/${id}`);
    },
  });
  const findings = findingsOf(make.error);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!make.isPending) make.mutate();
  };
  return (
    <form ref={form} noValidate className="mb-4 flex flex-wrap items-end gap-2" onSubmit={submit}>
      <TextBox
        label="What it is called"
        value={name}
        error={findings.get("name")}
        onChange={(e) => setName(e.target.value)}
      />
      <Button weight="main" type="submit" disabled={make.isPending}>
        Begin it
      </Button>
      <Button weight="quiet" onClick={onCancel}>
        Cancel
      </Button>
      {findings.size === 0 && <Failure error={make.error} />}
    </form>
  );
}
