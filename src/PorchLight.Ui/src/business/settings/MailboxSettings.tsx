import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { SelectBox, TextBox } from "../../kit/fields";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { SavedForm } from "../saving/SavedForm";
import { useEdit } from "../saving/useEdit";

const names: Record<string, string> = {
  reads: "Where answers come from",
  host: "Mail server",
  port: "Port",
  security: "Encryption",
  user: "User name",
  password: "Password",
  folder: "Folder",
};

/** Whether the answers of clients are read from a mailbox. */
export function MailboxSettings() {
  const mailbox = useQuery({
    ...ask(["mailbox-settings"], () => api.GET("/api/settings/mailbox")),
    refetchOnMount: "always",
  });
  if (!mailbox.data || !mailbox.isFetchedAfterMount)
    return mailbox.error ? <Failure error={mailbox.error} /> : <Skeleton rows={3} />;
  return <MailboxForm mailbox={mailbox.data} />;
}

function MailboxForm({ mailbox }: { mailbox: Schemas["MailboxSettingsView"] }) {
  const edit = useEdit(
    mailbox.setting,
    async (body) => (await orProblem(api.PUT("/api/settings/mailbox", { body }))).setting,
  );
  const test = useMutation({
    mutationFn: () => orProblem(api.POST("/api/settings/mailbox/test", { body: edit.now })),
  });
  const findings = edit.findings.size > 0 ? edit.findings : findingsOf(test.error);
  const { now } = edit;
  const change = (part: Partial<typeof now>) => {
    edit.change(part);
    test.reset();
  };
  return (
    <SavedForm
      edit={edit}
      nameOf={(place) => names[place] ?? place}
      beside={
        now.reads && (
          <Button disabled={test.isPending} onClick={() => test.mutate()}>
            {test.isPending ? "Opening the mailbox …" : "Try to open the mailbox"}
          </Button>
        )
      }
    >
      {mailbox.failure && (
        <p className="mb-4 rounded-soft bg-glow p-4">The mailbox could not be read the last time. {mailbox.failure}</p>
      )}
      <fieldset className="mb-4">
        <legend className="mb-1 font-semibold">Where answers come from</legend>
        {(
          [
            [false, "Nowhere yet: you note answers yourself"],
            [true, "From your mailbox (IMAP): mail from people on file is brought in automatically"],
          ] as const
        ).map(([reads, words]) => (
          <label key={words} className="flex min-h-8 items-center gap-2">
            <input type="radio" name="reads" checked={now.reads === reads} onChange={() => change({ reads })} />
            {words}
          </label>
        ))}
      </fieldset>
      {now.reads && (
        <div className="grid gap-4">
          <p className="text-slate">
            Your mail provider gives you these. The mailbox is checked once a minute; nothing in it is changed. Of mail
            from people who are not on file only the lines above the text are looked at (who sent it, and to what it
            answers); nothing of it is kept. Reports of mail that came back are read to find out whether it was yours.
          </p>
          <div className="grid gap-4 sm:grid-cols-[minmax(0,1fr)_7rem]">
            <TextBox
              label="Mail server"
              placeholder="imap.example.com"
              value={now.host}
              error={findings.get("host")}
              onChange={(e) => change({ host: e.target.value })}
            />
            <TextBox
              label="Port"
              inputMode="numeric"
              value={now.port || ""}
              error={findings.get("port")}
              onChange={(e) => change({ port: Math.trunc(Number(e.target.value)) || 0 })}
            />
          </div>
          <SelectBox
            label="Encryption"
            value={now.security}
            onChange={(e) => change({ security: e.target.value as Schemas["MailSecurity"] })}
          >
            <option value="tls">TLS from the start (what most mailboxes use, port 993)</option>
            <option value="startTls">STARTTLS (port 143)</option>
            <option value="none">None (only for a mail server on the same machine)</option>
          </SelectBox>
          <div className="grid gap-4 sm:grid-cols-2">
            <TextBox
              label="User name"
              autoComplete="off"
              value={now.user}
              error={findings.get("user")}
              onChange={(e) => change({ user: e.target.value })}
            />
            <TextBox
              label="Password"
              help={mailbox.setting.reads ? "Leave it empty to keep the stored one." : undefined}
              type="password"
              autoComplete="new-password"
              value={now.password}
              error={findings.get("password")}
              onChange={(e) => change({ password: e.target.value })}
            />
          </div>
          <TextBox
            label="Folder"
            help="New mail usually lands in INBOX."
            value={now.folder}
            error={findings.get("folder")}
            onChange={(e) => change({ folder: e.target.value })}
          />
        </div>
      )}
      <div role="status">
        {test.data && (
          <p
            className={`border-l-4 pl-3 font-semibold ${test.data.worked ? "border-moss text-moss" : "border-brick text-brick"}`}
          >
            {test.data.sentence}
          </p>
        )}
        {test.error && findings.size === 0 && <Failure error={test.error} />}
      </div>
    </SavedForm>
  );
}
