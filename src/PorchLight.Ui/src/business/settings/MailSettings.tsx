import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link } from "react-router";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { SelectBox, TextBox } from "../../kit/fields";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useEdit } from "../saving/useEdit";
import { useSession } from "../shell/session";
import { useSendKey } from "../../api/useSendKey";
import { SavedForm } from "../saving/SavedForm";

const names: Record<string, string> = {
  practice: "Where mail goes",
  host: "Mail server",
  port: "Port",
  security: "Encryption",
  user: "User name",
  password: "Password",
};

/** Whether mail stays in the program or goes out. */
export function MailSettings() {
  const mail = useQuery({ ...ask(["mail-settings"], () => api.GET("/api/settings/mail")), refetchOnMount: "always" });
  if (!mail.data || !mail.isFetchedAfterMount)
    return mail.error ? <Failure error={mail.error} /> : <Skeleton rows={5} />;
  return <MailForm mail={mail.data} />;
}

function MailForm({ mail }: { mail: Schemas["MailSettingsView"] }) {
  const { refresh } = useSession();
  const edit = useEdit(mail.setting, async (body) => {
    const { setting } = await orProblem(api.PUT("/api/settings/mail", { body }));
    await refresh();
    return setting;
  });
  const sendKey = useSendKey();
  const test = useMutation({
    mutationFn: () =>
      orProblem(api.POST("/api/settings/mail/test", { body: edit.now, headers: sendKey.for(edit.now) })),
    onSuccess: sendKey.done,
  });
  const findings = edit.findings.size > 0 ? edit.findings : findingsOf(test.error);
  const { now } = edit;
  const change = (part: Partial<typeof now>) => {
    edit.change(part);
    test.reset();
  };
  return (
    <div className="grid gap-4">
      {(mail.stuck > 0 || mail.waiting > 0) && (
        <p className="rounded-soft bg-glow p-4 shadow-soft">
          {mail.waiting > 0 && `Waiting for their next try: ${mail.waiting}. `}
          {mail.stuck > 0 && (
            <>
              Waiting for you: {mail.stuck}.{" "}
              <Link to="/" className="underline">
                Look at them on Today
              </Link>
              .
            </>
          )}
        </p>
      )}
      <SavedForm
        edit={edit}
        nameOf={(place) => names[place] ?? place}
        beside={
          <Button disabled={test.isPending} onClick={() => test.mutate()}>
            {test.isPending ? "Sending a test …" : "Send me a test message"}
          </Button>
        }
      >
        <fieldset className="mb-4">
          <legend className="mb-1 font-semibold">Where mail goes</legend>
          {(
            [
              [true, "Practice: messages stay in this program and reach no one"],
              [false, "Through your mail server (SMTP)"],
            ] as const
          ).map(([practice, words]) => (
            <label key={words} className="flex min-h-8 items-center gap-2">
              <input
                type="radio"
                name="practice"
                checked={now.practice === practice}
                onChange={() => change({ practice })}
              />
              {words}
            </label>
          ))}
        </fieldset>
        {!now.practice && (
          <div className="grid gap-4">
            <p className="text-slate">
              Whoever hosts your mail names these. Messages come from {mail.from}; let that be an address of theirs.
            </p>
            <div className="grid gap-4 sm:grid-cols-[minmax(0,1fr)_7rem]">
              <TextBox
                label="Mail server"
                placeholder="smtp.example.com"
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
              <option value="startTls">STARTTLS (what most mail servers use, port 587)</option>
              <option value="tls">TLS from the start (port 465)</option>
              <option value="none">None (only for a mail server on the same machine)</option>
            </SelectBox>
            <div className="grid gap-4 sm:grid-cols-2">
              <TextBox
                label="User name"
                help="Empty when the server asks for none."
                autoComplete="off"
                value={now.user}
                onChange={(e) => change({ user: e.target.value })}
              />
              <TextBox
                label="Password"
                help="Leave it empty to keep the stored one."
                type="password"
                autoComplete="new-password"
                value={now.password}
                onChange={(e) => change({ password: e.target.value })}
              />
            </div>
          </div>
        )}
        <div role="status">
          {test.data && (
            <p
              className={`border-l-4 pl-3 font-semibold ${test.data.arrived ? "border-moss text-moss" : "border-brick text-brick"}`}
            >
              {test.data.sentence}
            </p>
          )}
          {test.error && findings.size === 0 && <Failure error={test.error} />}
        </div>
      </SavedForm>
    </div>
  );
}
