import { Menu, MenuItem, MenuLine, MenuWords } from "../../kit/Menu";
import { Popover } from "radix-ui";
import { Bell, ChevronDown } from "lucide-react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link, NavLink } from "react-router";
import { orProblem, sentenceOf, type Schemas } from "../../api/problem";
import { LightMark } from "../../kit/marks";
import { menuLook } from "../../kit/menu";
import { api, signOut } from "../../api/client";
import { useSendKey } from "../../api/useSendKey";
import { AllKeys } from "./AllKeys";
import { Jump } from "./Jump";
import { useSession } from "../shell/session";
import { useNewsInTitle } from "../shell/useTitle";

const stations = [
  ["/", "Today"],
  ["/forms", "Forms"],
  ["/inquiries", "Inquiries"],
  ["/clients", "Clients"],
  ["/follow-through", "Follow-through"],
  ["/calendar", "Calendar"],
  ["/library", "Library"],
] as const;

const onDusk =
  "inline-flex min-h-9 items-center gap-1.5 rounded-soft px-2.5 text-card outline-offset-2 focus-visible:outline-lamp";

/** The band across the top: whose business this is, the stations in the order of the work, and who you are. */
export function TopBar({ onSignedOut }: { onSignedOut: () => void }) {
  const session = useSession();
  // They stay until somebody says how the business stands with them.
  const leads = useQuery(ask(["leads"], () => api.GET("/api/clients/leads"))).data?.leads;
  return (
    <header className="z-20 flex min-h-14 shrink-0 flex-wrap items-center gap-x-1 bg-dusk px-3 text-card md:px-6 lg:h-14 lg:flex-nowrap">
      <Link
        to="/"
        className="mr-4 inline-flex min-w-0 flex-1 basis-0 items-center gap-2 py-2 font-head md:flex-none md:basis-auto text-section font-semibold outline-offset-2 focus-visible:outline-lamp"
      >
        <span className="shrink-0 rounded-soft bg-card p-0.5">
          <LightMark lit />
        </span>
        <span className="truncate">{session.business}</span>
      </Link>
      <nav
        aria-label="Stations"
        className="order-last flex w-full min-w-0 flex-wrap lg:order-none lg:h-full lg:w-auto lg:flex-nowrap"
      >
        {stations.map(([to, name]) => (
          <span key={to} className="inline-flex h-10 items-center lg:h-full">
            <NavLink
              to={to}
              end={to === "/"}
              className={({ isActive }) =>
                `inline-flex h-full items-center border-y-[3px] border-t-transparent px-2 -outline-offset-2 focus-visible:outline-lamp md:px-3.5 ${isActive ? "border-b-lamp font-semibold" : "border-b-transparent hover:border-b-edge"}`
              }
            >
              {/* As wide as it is bold, so that nothing moves when another station is chosen. */}
              <span
                data-name={name}
                className="inline-grid after:invisible after:h-0 after:overflow-hidden after:font-semibold after:content-[attr(data-name)]"
              >
                {name}
              </span>
            </NavLink>
            {to === "/clients" && !!leads && (
              <span
                title={leads === 1 ? "One lead" : `${leads} leads`}
                className="-ml-1 mr-1 rounded-soft border border-card/50 px-1 text-caption tabular-nums md:-ml-2.5"
              >
                {leads > 999 ? "999+" : leads}
                <span className="sr-only xl:not-sr-only">{leads === 1 ? " lead" : " leads"}</span>
              </span>
            )}
          </span>
        ))}
      </nav>
      <div className="ml-auto flex shrink-0 items-center gap-1">
        <Jump className={onDusk} />
        <AllKeys />
        {(session.isDemo || session.practiceMail) && <PracticeMenu />}
        <BellButton />
        <Menu
          trigger={
            <button type="button" className={onDusk}>
              <span className="hidden md:inline">{shortName(session.name ?? "")}</span>
              <span className="md:hidden">You</span> <ChevronDown size={16} aria-hidden />
            </button>
          }
          align="end"
          className="min-w-44"
        >
          <MenuWords>
            {session.name}, {session.role}
          </MenuWords>
          {session.role === "owner" && (
            <MenuItem asChild>
              <Link to="/settings">Settings</Link>
            </MenuItem>
          )}
          <MenuItem asChild>
            <Link to="/mails">When you get mails</Link>
          </MenuItem>
          <MenuItem asChild>
            <Link to="/password">Change your password</Link>
          </MenuItem>
          <MenuItem onSelect={() => void signOut().then(onSignedOut)}>Sign out</MenuItem>
        </Menu>
      </div>
    </header>
  );
}

function shortName(name: string): string {
  const [given = "", family = ""] = name.split(" ");
  return family ? `${given} ${family[0]}.` : given;
}

/** The simulated outside: its mail, and the clock that can be moved on. */
function PracticeMenu() {
  const { isDemo } = useSession();
  return (
    <Menu
      trigger={
        <button type="button" className={onDusk}>
          Practice <ChevronDown size={16} aria-hidden />
        </button>
      }
      align="end"
      className="w-80"
    >
      <MenuItem asChild>
        <Link to="/practice-mail">Practice mail</Link>
      </MenuItem>
      <MenuItem asChild>
        <Link to="/practice-chat">Practice team chat</Link>
      </MenuItem>
      <MenuItem asChild>
        <Link to="/practice-calendar">Practice calendar</Link>
      </MenuItem>
      <MenuItem asChild>
        <Link to="/practice-texts">Practice texts and page notes</Link>
      </MenuItem>
      {isDemo && <SkipAhead />}
    </Menu>
  );
}

/** Moves the clock of a business that is made up. */
function SkipAhead() {
  const clock = useQuery(ask(["clock"], () => api.GET("/api/practice/clock")));
  const sendKey = useSendKey();
  const skip = useMutation({
    mutationFn: (to: Schemas["SkipTo"]) =>
      orProblem(api.POST("/api/practice/clock/skip", { body: { to }, headers: sendKey.for(to) })),
    onSuccess: sendKey.done,
    onSettled: () => void clock.refetch(),
  });
  return (
    <>
      <MenuLine />
      <div className="px-3 py-2">
        <p className="font-semibold">Skip ahead</p>
        <p className="text-slate">
          It is {clock.data?.now ?? "…"}
          {clock.data?.ahead && `, ${clock.data.ahead}`}.
        </p>
        {skip.error && <p className="text-brick">{sentenceOf(skip.error)}</p>}
      </div>
      {(
        [
          ["nextHour", "One hour on"],
          ["tomorrowMorning", "To tomorrow, 09:00"],
          [
            "nextStep",
            clock.data?.nextStep ? `To the next step, ${clock.data.nextStep}` : "To the next step (none planned)",
          ],
        ] as const
      ).map(([to, words]) => (
        <MenuItem
          key={to}
          disabled={skip.isPending || (to === "nextStep" && !clock.data?.nextStep)}
          onSelect={(event) => {
            event.preventDefault();
            skip.mutate(to);
          }}
        >
          {words}
        </MenuItem>
      ))}
    </>
  );
}

/** What rang since this person last looked. */
function BellButton() {
  const bell = useQuery(ask(["bell"], () => api.GET("/api/bell")));
  const seen = useMutation({
    mutationFn: () => orProblem(api.POST("/api/bell/seen")),
    onSuccess: () => void bell.refetch(),
  });
  const unseen = bell.data?.unseen ?? 0;
  useNewsInTitle(unseen);
  return (
    <Popover.Root onOpenChange={(open) => !open && unseen > 0 && seen.mutate()}>
      <Popover.Trigger className={onDusk} aria-label={unseen === 0 ? "Bell, nothing new" : `Bell, ${unseen} new`}>
        <Bell size={18} aria-hidden />
        <span aria-live="polite" className="min-w-4 font-semibold text-lamp tabular-nums">
          {unseen > 0 && unseen}
        </span>
      </Popover.Trigger>
      <Popover.Content
        align="end"
        sideOffset={6}
        aria-label="News"
        className={`${menuLook} max-h-[70dvh] w-96 max-w-[95vw] overflow-y-auto p-2`}
      >
        {bell.data?.entries.length === 0 && (
          <p className="p-3 text-slate">
            Nothing new yet. New inquiries, answers and messages that wait for your nod are listed here.
          </p>
        )}
        <ul>
          {bell.data?.entries.map((entry, index) => (
            <li key={index}>
              <Popover.Close asChild>
                <Link
                  to={entry.inquiryId ? `/inquiries/${entry.inquiryId}` : "/"}
                  className={`block rounded-soft px-3 py-2 hover:bg-mist ${entry.unseen ? "bg-glow" : ""}`}
                >
                  {entry.sentence} <span className="text-slate">{entry.at}</span>
                </Link>
              </Popover.Close>
            </li>
          ))}
        </ul>
      </Popover.Content>
    </Popover.Root>
  );
}
