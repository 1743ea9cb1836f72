import { useRef, useState, type FormEvent } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { api } from "../../api/client";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { useSendKey } from "../../api/useSendKey";
import { AskFirst } from "../../kit/AskFirst";
import { Button, buttonLook } from "../../kit/Button";
import { Dialog, DialogClose } from "../../kit/Dialog";
import { TextBox } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";

type Row = Schemas["CalendarRow"];

/** The calendars that somebody keeps elsewhere, with what is known of each. */
export function OutsideCalendars({ user, isYou }: { user: string; isYou: boolean }) {
  const all = useQuery(ask(["outside-calendars"], () => api.GET("/api/outside-calendars")));
  const rows = all.data?.filter((row) => row.user === user) ?? [];
  if (!isYou && rows.length === 0) return null;
  return (
    <section className="mt-6 border-t border-line pt-4 first:mt-0 first:border-t-0">
      <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
        <h3 className="text-section">Calendars kept elsewhere</h3>
        {isYou && <AddCalendar />}
      </div>
      <p className="mb-2 max-w-prose text-slate">
        {isYou
          ? "No meeting is offered while you are busy there. Others here see only that you are busy."
          : "No meeting is offered while they are busy there."}
      </p>
      <Failure error={all.error} />
      <ul className="grid gap-3">
        {rows.map((row) => (
          <OneCalendar key={row.id} row={row} />
        ))}
      </ul>
    </section>
  );
}

function OneCalendar({ row }: { row: Row }) {
  const params = { path: { id: row.id } };
  const read = useMutation({
    mutationFn: () => orProblem(api.POST("/api/outside-calendars/{id}/read", { params })),
  });
  const remove = useMutation({
    mutationFn: () => orProblem(api.DELETE("/api/outside-calendars/{id}", { params })),
  });
  return (
    <li className="rounded-soft border border-line p-3">
      <p>
        <strong className="wrap-anywhere">{row.name}</strong>
        <span className="text-slate">
          {" "}
          {row.isFile ? "from a file" : "read every hour"}, last {row.read}. {row.holds}.
        </span>
      </p>
      {row.fault && (
        <p className="mt-1 font-semibold text-brick">
          The last try failed. {row.fault} What was read before still counts.
        </p>
      )}
      {row.faults.length > 0 && (
        <details className="mt-1">
          <summary className="cursor-pointer">
            {row.faults.length === 1 ? "One thing in it could not be read" : "Some things in it could not be read"}
          </summary>
          <ul className="mt-1 list-disc pl-5">
            {row.faults.map((fault) => (
              <li key={fault}>{fault}</li>
            ))}
          </ul>
        </details>
      )}
      <p className="mt-2 flex flex-wrap gap-2">
        {!row.isFile && (
          <Button disabled={read.isPending} aria-label={`Read ${row.name} now`} onClick={() => read.mutate()}>
            {read.isPending ? "Reading …" : "Read it now"}
          </Button>
        )}
        <AskFirst
          words="Take out"
          label={`Take out ${row.name}`}
          question="Its busy times are offered again."
          act="Take it out"
          busy={remove.isPending}
          onAct={() => remove.mutate()}
        />
      </p>
      <Failure error={read.error ?? remove.error} />
    </li>
  );
}

function AddCalendar() {
  const [isOpen, setOpen] = useState(false);
  return (
    <Dialog
      open={isOpen}
      onOpenChange={setOpen}
      trigger={<Button>Add a calendar</Button>}
      title="A calendar kept elsewhere"
      about="Only its busy times count. Nothing is ever written into it."
    >
      <Add onDone={() => setOpen(false)} />
    </Dialog>
  );
}

function Add({ onDone }: { onDone: () => void }) {
  const notice = useNotice();
  const sendKey = useSendKey();
  const picker = useRef<HTMLInputElement>(null);
  const [name, setName] = useState("");
  const [address, setAddress] = useState("");
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const add = useMutation({
    mutationFn: () => {
      if (file) {
        const body = { name, text: file.text };
        return orProblem(api.POST("/api/outside-calendars/file", { body, headers: sendKey.for(body) }));
      }
      const body = { name, address };
      return orProblem(api.POST("/api/outside-calendars", { body, headers: sendKey.for(body) }));
    },
    onSuccess: () => {
      sendKey.done();
      notice({ words: "Added. Its busy times are no longer offered." });
      onDone();
    },
  });
  const findings = findingsOf(add.error);
  const choose = (chosen: File | undefined) => {
    if (!chosen) return;
    void chosen.text().then((text) => setFile({ name: chosen.name, text }));
    if (!name) setName(chosen.name.replace(/\.ics$/i, ""));
  };
  return (
    <form
      noValidate
      className="grid gap-4"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        if (!add.isPending) add.mutate();
      }}
    >
      <TextBox label="Name" value={name} error={findings.get("name")} onChange={(e) => setName(e.target.value)} />
      {file ? (
        <p>
          <strong>{file.name}</strong>{" "}
          <Button weight="quiet" onClick={() => setFile(null)}>
            Give an address instead
          </Button>
        </p>
      ) : (
        <TextBox
          label="Its address"
          help="Other calendars read it there. It usually ends in .ics. It is read every hour."
          value={address}
          error={findings.get("address")}
          onChange={(e) => setAddress(e.target.value)}
        />
      )}
      <p>
        <input
          ref={picker}
          type="file"
          accept=".ics,text/calendar"
          aria-label="Choose a calendar file"
          className="sr-only"
          tabIndex={-1}
          onChange={({ target }) => {
            choose(target.files?.[0]);
            target.value = "";
          }}
        />
        <Button onClick={() => picker.current?.click()}>
          {file ? "Choose another file" : "Choose a file instead"}
        </Button>
        {findings.get("file") && <span className="mt-1 block font-semibold text-brick">{findings.get("file")}</span>}
      </p>
      {findings.size === 0 && <Failure error={add.error} />}
      <span className="flex flex-wrap gap-2">
        <Button weight="main" type="submit" disabled={add.isPending}>
          {add.isPending ? "Reading it …" : "Add it"}
        </Button>
        <DialogClose className={buttonLook("quiet")}>Cancel</DialogClose>
      </span>
    </form>
  );
}
