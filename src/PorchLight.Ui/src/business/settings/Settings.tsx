import { Page } from "../../kit/Page";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { NavLink, useNavigate, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { buttonLook } from "../../kit/Button";
import { boxLook } from "../../kit/fields";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useEdit } from "../saving/useEdit";
import { NothingHere } from "../shell/NothingHere";
import { useSession } from "../shell/session";
import { useTitle } from "../shell/useTitle";
import { CardFields, HoursFields, PromiseFields } from "../shell/businessFields";
import { FieldSettings } from "./FieldSettings";
import { ListSettings } from "./ListSettings";
import { LookSettings } from "./LookSettings";
import { MailboxSettings } from "./MailboxSettings";
import { MailSettings } from "./MailSettings";
import { PeopleSettings } from "./PeopleSettings";
import { SavedForm } from "../saving/SavedForm";
import { SourceSettings } from "./SourceSettings";
import { ViewSettings } from "./ViewSettings";
import { WebhookSettings } from "./WebhookSettings";
import { WelcomeSettings } from "./WelcomeSettings";

type SettingsView = Schemas["SettingsView"];

const sections = [
  ["business", "Business"],
  ["look", "Look"],
  ["welcome", "Welcome and unfinished forms"],
  ["services", "Services"],
  ["sources", "Sources"],
  ["stages", "Stages"],
  ["lostReasons", "Why work is lost"],
  ["colleagues", "Colleagues"],
  ["fields", "Fields"],
  ["views", "Views"],
  ["hours", "Hours"],
  ["promise", "Reply promise"],
  ["people", "People"],
  ["mail", "Mail"],
  ["webhooks", "Webhooks"],
  ["backup", "Backup"],
] as const;

/** What the owner settles for the whole business. */
export function Settings() {
  const { section = "business", view = "client" } = useParams();
  const name = sections.find(([key]) => key === section)?.[1];
  const { role } = useSession();
  const navigate = useNavigate();
  useTitle(name && `${name}, settings`);
  if (!name) return <NothingHere />;
  if (role !== "owner")
    return <main className="p-10">Only the owner can change the settings. Ask them to look here with you.</main>;
  return (
    <Page title="Settings">
      <div className="grid items-start gap-6 md:grid-cols-[11rem_minmax(0,1fr)]">
        <label className="block md:hidden">
          <span className="block font-semibold">What to set</span>
          <select
            className={`${boxLook} mt-1`}
            value={section}
            onChange={(e) => void navigate(`/settings/${e.target.value}`)}
          >
            {sections.map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <nav aria-label="Settings" className="hidden gap-1 md:grid">
          {sections.map(([key, words]) => (
            <NavLink
              key={key}
              to={`/settings/${key}`}
              aria-current={key === section ? "page" : undefined}
              className={`rounded-soft px-3 py-1.5 ${key === section ? "bg-card font-semibold shadow-soft" : "hover:bg-card"}`}
            >
              {words}
            </NavLink>
          ))}
        </nav>
        <section aria-label={name}>
          {section === "people" ? (
            <PeopleSettings />
          ) : section === "mail" ? (
            <div className="grid gap-6">
              <MailSettings />
              <MailboxSettings />
            </div>
          ) : section === "webhooks" ? (
            <WebhookSettings />
          ) : section === "fields" ? (
            <FieldSettings />
          ) : section === "views" ? (
            <ViewSettings key={view} which={view} />
          ) : section === "backup" ? (
            <BackupSettings />
          ) : (
            <OfTheBusiness key={section} section={section} />
          )}
        </section>
      </div>
    </Page>
  );
}

function OfTheBusiness({ section }: { section: string }) {
  const settings = useQuery({ ...ask(["settings"], () => api.GET("/api/settings")), refetchOnMount: "always" });
  // What is edited starts from what is stored now, never from what was seen the last time.
  if (!settings.data || !settings.isFetchedAfterMount)
    return settings.error ? <Failure error={settings.error} /> : <Skeleton rows={6} />;
  switch (section) {
    case "look":
      return <LookSettings settings={settings.data} />;
    case "welcome":
      return <WelcomeSettings settings={settings.data} />;
    case "services":
    case "stages":
    case "lostReasons":
    case "colleagues":
      return <ListSettings settings={settings.data} list={section} />;
    case "sources":
      return (
        <div className="grid gap-6">
          <ListSettings settings={settings.data} list={section} />
          <SourceSettings />
        </div>
      );
    case "hours":
      return <HoursSettings settings={settings.data} />;
    case "promise":
      return <PromiseSettings settings={settings.data} />;
    default:
      return <CardSettings settings={settings.data} />;
  }
}

const cardNames: Record<string, string> = {
  name: "Business",
  ownerName: "Your name",
  mailAddress: "E-mail",
  region: "Country",
  currency: "Currency",
  zone: "Time zone",
  publicAddress: "Address of your forms",
};

function CardSettings({ settings }: { settings: SettingsView }) {
  const { refresh } = useSession();
  const edit = useEdit(settings.business, async (body) => {
    const { business } = await orProblem(api.PUT("/api/settings/business", { body }));
    await refresh();
    return business;
  });
  return (
    <SavedForm edit={edit} nameOf={(place) => cardNames[place] ?? place}>
      <CardFields value={edit.now} findings={edit.findings} onChange={edit.change} />
    </SavedForm>
  );
}

const hoursNames: Record<string, string> = {
  closed: "Closed days",
  sendFrom: "Messages go out from",
  sendTo: "Messages go out to",
};

function HoursSettings({ settings }: { settings: SettingsView }) {
  const edit = useEdit(
    settings.hours,
    async (body) => (await orProblem(api.PUT("/api/settings/hours", { body }))).hours,
  );
  return (
    <SavedForm edit={edit} nameOf={(place) => hoursNames[place] ?? place.charAt(0).toUpperCase() + place.slice(1)}>
      <HoursFields value={edit.now} findings={edit.findings} onChange={edit.change} />
    </SavedForm>
  );
}

function PromiseSettings({ settings }: { settings: SettingsView }) {
  const queries = useQueryClient();
  const edit = useEdit(settings.promise, async (body) => {
    const next = await orProblem(api.PUT("/api/settings/promise", { body }));
    queries.setQueryData(["settings"], next);
    return next.promise;
  });
  return (
    <SavedForm edit={edit} nameOf={(place) => (place === "hours" ? "You answer within" : "Which hours count")}>
      <PromiseFields value={edit.now} findings={edit.findings} onChange={edit.change} />
      <p className="mt-4">{settings.promiseExample}</p>
    </SavedForm>
  );
}

function BackupSettings() {
  return (
    <div className="grid gap-3 rounded-soft bg-card p-6 shadow-soft">
      <p>
        A backup holds everything in one ZIP: forms, inquiries, records, messages, people, and the keys that open what
        is sealed. Keep it where only you can read it.
      </p>
      <p>
        <a href="/api/settings/backup.zip" download className={buttonLook("main")}>
          Download a backup
        </a>
      </p>
      <p className="text-slate">
        On the machine itself <code>./backup FILE</code> does the same, and <code>./restore FILE</code> brings one back
        while Porch Light is stopped.
      </p>
    </div>
  );
}
