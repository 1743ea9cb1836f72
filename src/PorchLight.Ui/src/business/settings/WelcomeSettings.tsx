import { useRef, useState } from "react";
import { orProblem, Problem, sentenceOf, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { boxLook, GrowingText, TextBox } from "../../kit/fields";
import { api } from "../../api/client";
import { useEdit } from "../saving/useEdit";
import { useSendKey } from "../../api/useSendKey";
import { SavedForm } from "../saving/SavedForm";

/** Who welcomes people on the cover of forms, and how long an unfinished form waits for them. */
export function WelcomeSettings({ settings }: { settings: Schemas["SettingsView"] }) {
  return (
    <div className="grid gap-6">
      <Welcome settings={settings} />
      <Keeping settings={settings} />
    </div>
  );
}

function Welcome({ settings }: { settings: Schemas["SettingsView"] }) {
  const [failure, setFailure] = useState<string | null>(null);
  const edit = useEdit(
    settings.welcome,
    async (body) => (await orProblem(api.PUT("/api/settings/welcome", { body }))).welcome,
  );
  const { now } = edit;
  const picker = useRef<HTMLInputElement>(null);
  const sendKey = useSendKey();
  const choose = (file: File | undefined) => {
    if (!file) return;
    setFailure(null);
    orProblem(
      api.POST("/api/files", {
        params: { query: { name: file.name } },
        body: file as unknown as string,
        bodySerializer: () => file,
        headers: {
          "Content-Type": "application/octet-stream",
          ...sendKey.for([file.name, file.size, file.lastModified]),
        },
      }),
    )
      .then((taken) => {
        if (taken.group === "picture") edit.change({ photo: taken.id });
        else throw new Problem(422, `“${taken.name}” is not a picture. Please choose one.`);
      })
      .catch((error: unknown) => setFailure(sentenceOf(error)));
  };
  return (
    <SavedForm edit={edit} nameOf={(place) => (place === "photo" ? "Your picture" : "Contact lines")}>
      <p className="mb-3 text-slate">
        A form&rsquo;s cover can show who answers. {settings.business.ownerName} and {settings.business.mailAddress}{" "}
        stand there with it.
      </p>
      <div className="flex flex-wrap items-center gap-4">
        {now.photo && (
          <img
            src={`/public/files/${now.photo}`}
            alt={settings.business.ownerName}
            className="size-20 rounded-full border border-line object-cover"
          />
        )}
        <div>
          <p className="mb-1 font-semibold">Your picture</p>
          <input
            ref={picker}
            type="file"
            accept="image/png,image/jpeg,image/webp"
            aria-label="Choose your picture"
            className="sr-only"
            tabIndex={-1}
            onChange={({ target }) => {
              choose(target.files?.[0]);
              target.value = "";
            }}
          />
          <Button onClick={() => picker.current?.click()}>{now.photo ? "Choose another" : "Choose a picture"}</Button>
        </div>
        {now.photo && (
          <Button weight="quiet" onClick={() => edit.change({ photo: null })}>
            Remove the picture
          </Button>
        )}
      </div>
      <p role="alert" className="font-semibold text-brick">
        {failure}
      </p>
      <label className="mt-4 block">
        <span className="block font-semibold">Contact lines</span>
        <span className="block text-slate">A phone number, where you are, when you can be reached: a line each.</span>
        <GrowingText
          className={`${boxLook} mt-1`}
          value={now.contactLines}
          aria-invalid={edit.findings.has("contactLines") ? true : undefined}
          onChange={(e) => edit.change({ contactLines: e.target.value })}
        />
        {edit.findings.has("contactLines") && (
          <span className="font-semibold text-brick">{edit.findings.get("contactLines")}</span>
        )}
      </label>
    </SavedForm>
  );
}

function Keeping({ settings }: { settings: Schemas["SettingsView"] }) {
  const edit = useEdit(
    settings.keeping,
    async (body) => (await orProblem(api.PUT("/api/settings/keeping", { body }))).keeping,
  );
  return (
    <SavedForm
      edit={edit}
      nameOf={(place) => (place === "clientMonths" ? "Inactive clients are kept" : "Unfinished forms are kept")}
    >
      <div className="grid gap-4">
        <TextBox
          label="Unfinished forms are kept, in days"
          help="Anyone who presses “Finish later” gets a link to continue. After this many days the link, the answers and the files are deleted."
          type="number"
          min={1}
          max={365}
          value={edit.now.unfinishedDays || ""}
          error={edit.findings.get("unfinishedDays")}
          onChange={(e) => edit.change({ unfinishedDays: Math.trunc(Number(e.target.value)) })}
        />
        <TextBox
          label="Inactive clients are kept, in months"
          help="Leave empty to keep them for good. Otherwise a client is erased after this long without activity: answers, fields, notes, files and mail. Today says so a week ahead. Active clients are always kept."
          type="number"
          min={1}
          max={240}
          value={edit.now.clientMonths ?? ""}
          error={edit.findings.get("clientMonths")}
          onChange={(e) => edit.change({ clientMonths: e.target.value ? Math.trunc(Number(e.target.value)) : null })}
        />
      </div>
    </SavedForm>
  );
}
