import { Dialog } from "../../kit/Dialog";
import { useDeferredValue, useEffect, useState } from "react";
import { CornerDownRight } from "lucide-react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { useNavigate } from "react-router";
import { Combobox } from "../../kit/Combobox";
import { boxLook } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { recentClients } from "../shell/recent";
import { useSession } from "../shell/session";

interface Destination {
  to: string;
  name: string;
  /** What it is, where its name alone does not say. */
  what?: string;
}

const stations: Destination[] = [
  { to: "/", name: "Today" },
  { to: "/forms", name: "Forms" },
  { to: "/inquiries", name: "Inquiries" },
  { to: "/clients", name: "Clients" },
  { to: "/follow-through", name: "Follow-through" },
  { to: "/calendar", name: "Calendar" },
  { to: "/library", name: "Library" },
];
const doable: Destination[] = [
  { to: "/forms/new", name: "Make a form" },
  { to: "/inquiries?add", name: "Add an inquiry that came by phone or mail" },
  { to: "/clients/import", name: "Import clients from a file" },
  { to: "/inquiries?board", name: "Inquiry board" },
  { to: "/files", name: "Files and lists" },
  { to: "/calendar/types", name: "Meeting types" },
  { to: "/calendar/hours", name: "Hours in which you can be met" },
  { to: "/mails", name: "When you get mails" },
];
const ofOwners: Destination[] = [
  { to: "/settings/business", name: "Settings" },
  { to: "/settings/fields", name: "Settings: Fields" },
  { to: "/settings/views", name: "Settings: Views" },
  { to: "/settings/services", name: "Settings: Services" },
  { to: "/settings/sources", name: "Settings: Sources" },
  { to: "/settings/stages", name: "Settings: Stages" },
  { to: "/settings/lostReasons", name: "Settings: Why work is lost" },
  { to: "/settings/colleagues", name: "Settings: Colleagues" },
];

/** Everywhere one can go, and everybody there is; with nothing typed, whoever was open last. */
export function Jump({ className }: { className: string }) {
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!event.altKey || event.ctrlKey || event.metaKey || event.code !== "KeyJ") return;
      event.preventDefault();
      setOpen(true);
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, []);
  return (
    <Dialog
      open={isOpen}
      onOpenChange={setOpen}
      isTitleHidden
      title="Jump"
      trigger={
        <button type="button" className={className}>
          <CornerDownRight size={18} aria-hidden className="sm:hidden" />
          <span className="sr-only sm:not-sr-only">Jump</span>
          <kbd className="hidden rounded-soft border border-card/50 px-1 text-caption lg:inline">Alt J</kbd>
        </button>
      }
    >
      <Destinations onGone={() => setOpen(false)} />
    </Dialog>
  );
}

function Destinations({ onGone }: { onGone: () => void }) {
  const { name, role } = useSession();
  const navigate = useNavigate();
  const [typed, setTyped] = useState("");
  const words = useDeferredValue(typed.trim());
  const ids = recentClients(name ?? "");
  const recent = useQuery({
    ...ask(["recent", ids], () => api.GET("/api/clients/names", { params: { query: { ids } } })),
    enabled: ids.length > 0,
  });
  const found = useQuery({
    ...ask(["clients", "jump", words], () => api.POST("/api/jump", { body: { words } })),
    enabled: words !== "",
    placeholderData: keepPreviousData,
  });
  const fits = (destination: Destination) => destination.name.toLowerCase().includes(words.toLowerCase());
  const everywhere = [...stations, ...doable, ...(role === "owner" ? ofOwners : [])];
  const here = words === "" ? undefined : found.data;
  const client = (what: string) => (one: { id: string; name: string }) => ({
    to: `/clients/${one.id}`,
    name: one.name,
    what,
  });
  const destinations: Destination[] = [
    ...(words === "" ? (recent.data ?? []).map(client("opened last")) : []),
    ...(here?.forms ?? []).map((one) => ({ to: `/forms/${one.id}`, name: one.name, what: "form" })),
    ...(here?.clients ?? []).map(client("client")),
    ...(here?.projects ?? []).map((one) => ({
      to: `/clients/${one.client}/projects/${one.id}`,
      name: one.name,
      what: `project of ${one.clientName}`,
    })),
    ...(here?.followThroughs ?? []).map((one) => ({
      to: `/follow-through/${one.id}`,
      name: one.name,
      what: "follow-through",
    })),
    ...everywhere.filter(fits),
    ...(here?.wrote ?? []).map(client("in their record")),
  ].slice(0, 20);
  return (
    <>
      <Combobox<Destination>
        listLabel="Destinations"
        items={destinations}
        keyOf={(destination) => `${destination.to} ${destination.what}`}
        wordsOf={() => typed}
        onType={setTyped}
        onChoose={(destination) => {
          onGone();
          void navigate(destination.to);
        }}
        isAlwaysOpen
        box={{ "aria-label": "Where to, or whom", placeholder: "Where to, or whom", className: boxLook }}
        rowLook={(isNext) =>
          `flex min-h-10 cursor-pointer items-center justify-between gap-4 rounded-soft px-3 ${isNext ? "bg-mist" : ""}`
        }
        row={(destination) => (
          <>
            <span className="truncate">{destination.name}</span>
            <span className="shrink-0 text-note text-slate">{destination.what}</span>
          </>
        )}
      />
      <Failure error={recent.error ?? found.error} />
      {words !== "" && destinations.length === 0 && found.isFetched && (
        <p className="px-3 py-2 text-slate">Nothing found.</p>
      )}
    </>
  );
}
