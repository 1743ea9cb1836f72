import { pageLook } from "../../kit/Page";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link, useNavigate, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { KeyCap } from "../../kit/KeyCap";
import { useLetters } from "../../kit/letters";
import { ListAndPanel } from "../../kit/ListAndPanel";
import { Row, Rows } from "../../kit/Rows";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useSession } from "../shell/session";
import { useTitle } from "../shell/useTitle";
import { TaskEntry } from "../clientParts/TaskEntry";
import { InquiryRow } from "../inquiries/InquiryRow";

const groups = [
  ["late", "Overdue"],
  ["today", "Promised for today"],
  ["wroteBack", "They wrote back"],
  ["later", "Promised for later"],
] as const;

const mailPath = (mail: { id: string }) => `/mail/${mail.id}`;
const nodPath = (nod: { runId: string; step: string }) => `/nods/${nod.runId}/${nod.step}`;

/** What is to come today, else the next one. */
function Meetings({ meetings }: { meetings: Schemas["UpcomingMeeting"][] }) {
  return (
    <section aria-label="Next meetings" className="mb-6 grid gap-2">
      {meetings.map((one) => (
        <Link
          key={one.meeting}
          to={`/calendar/${one.meeting}`}
          className="block rounded-soft border border-edge bg-glow px-4 py-2.5 hover:border-ink"
        >
          <strong>
            {one.when}, {one.name}
          </strong>{" "}
          <span className="text-slate">{one.detail}</span>
          {one.about && <span className="block">{one.about}</span>}
        </Link>
      ))}
    </section>
  );
}

/** The day as a short note, and below it what wants you, most urgent first. */
export function Today() {
  const { runId, step, id } = useParams();
  useTitle(runId || id ? null : "Today");
  const today = useQuery(ask(["today"], () => api.GET("/api/today")));
  const nods = today.data?.nods ?? [];
  const shown = groups
    .map(([group, title]) => ({ title, rows: today.data?.promised.filter((row) => row.group === group) ?? [] }))
    .filter(({ rows }) => rows.length > 0);
  const stuck = today.data?.stuck ?? [];
  const Note = runId || id ? "p" : "h1";
  const open = runId && step ? nodPath({ runId, step }) : id ? mailPath({ id }) : null;
  return (
    <ListAndPanel home="/" rows={[...stuck.map(mailPath), ...nods.map(nodPath)]} open={open}>
      <div className={pageLook}>
        <Failure error={today.error} />
        {today.isPending && <Skeleton />}
        {today.data && (
          <>
            {today.data.warning && (
              <p role="alert" className="mb-4 border-l-4 border-brick bg-card p-3 font-semibold text-brick">
                {today.data.warning}
              </p>
            )}
            {today.data.firstSteps.length > 0 && <FirstSteps steps={today.data.firstSteps} />}
            {today.data.erasedSoon.length > 0 && <ErasedSoon clients={today.data.erasedSoon} />}
            <Note className="mb-6 max-w-3xl font-head text-title leading-tight font-medium">{today.data.note}</Note>
            {today.data.meetings.length > 0 && <Meetings meetings={today.data.meetings} />}
            {shown.map(({ title, rows }, index) => (
              <section key={title} className="mb-6">
                <h2 className="mb-2 text-section">
                  {title}{" "}
                  {index === 0 && (
                    <span className="ml-1 font-body text-note font-normal text-slate">
                      {[today.data.clock, today.data.kept].filter(Boolean).join(". ")}
                    </span>
                  )}
                </h2>
                <Rows rows={rows} keyOf={(row) => row.id}>
                  {(row) => <InquiryRow row={row} withReply />}
                </Rows>
              </section>
            ))}
            {today.data.morePromised > 0 && (
              <p className="mb-6">
                <Link to="/inquiries" className="underline">
                  {today.data.morePromised.toLocaleString("en")} more are waiting
                </Link>
              </p>
            )}
            {today.data.tasks.length > 0 && <Due tasks={today.data.tasks} />}
            {stuck.length > 0 && <Stuck stuck={stuck} open={open} />}
            {today.data.failed.length > 0 && <Failed failed={today.data.failed} />}
            {today.data.givenUpCalls > 0 && <GivenUpCalls count={today.data.givenUpCalls} />}
            {nods.length > 0 && <Nods nods={nods} gaps={today.data.gaps} open={open} />}
            {today.data.moreNods > 0 && (
              <p className="mb-6 text-slate">
                {today.data.moreNods.toLocaleString("en")} more messages wait for your nod; they appear here as these
                go.
              </p>
            )}
            {today.data.promised.length === 0 &&
              nods.length === 0 &&
              stuck.length === 0 &&
              today.data.failed.length === 0 &&
              today.data.givenUpCalls === 0 &&
              today.data.tasks.length === 0 && (
                <Empty>
                  Nothing to do right now. New inquiries, and messages that wait for your nod, appear here by
                  themselves.{" "}
                  <Link to="/forms" className="text-ink underline">
                    Look at your forms
                  </Link>{" "}
                  to share one, or{" "}
                  <Link to="/inquiries" className="text-ink underline">
                    at all inquiries
                  </Link>
                  .
                </Empty>
              )}
          </>
        )}
      </div>
    </ListAndPanel>
  );
}

const firstSteps: Record<Schemas["FirstStepView"]["step"], { words: string; to: string }> = {
  services: { words: "Add your services and their starting prices", to: "/settings/services" },
  mail: { words: "Connect your mail, so that your messages really go out", to: "/settings/mail" },
  address: { words: "Set the web address of your forms", to: "/settings/business" },
  form: { words: "Build a form and turn its light on", to: "/forms" },
  firstAnswer: { words: "Send yourself a first answer, to see what a lead sees", to: "/forms" },
};

/** What a business that has just begun sets up, in the order of the work. */
function FirstSteps({ steps }: { steps: Schemas["FirstStepView"][] }) {
  return (
    <section className="mb-6 rounded-soft bg-card p-5 shadow-soft">
      <h2 className="mb-2 text-section">First steps</h2>
      <ol className="grid gap-1">
        {steps.map(({ step, isDone }) => (
          <li key={step} className="flex items-baseline gap-2">
            <span aria-hidden className={isDone ? "text-moss" : "text-edge"}>
              {isDone ? "✓" : "○"}
            </span>
            {isDone ? (
              <span className="text-slate">
                {firstSteps[step].words} <span className="sr-only">(done)</span>
              </span>
            ) : (
              <Link className="underline" to={firstSteps[step].to}>
                {firstSteps[step].words}
              </Link>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** What is due today or was before, and the days that are today. */
function Due({ tasks }: { tasks: Schemas["TaskOnFile"][] }) {
  return (
    <section className="mb-6">
      <h2 className="mb-2 text-section">To do today</h2>
      <ul className="divide-y divide-line overflow-hidden rounded-soft bg-card shadow-soft">
        {tasks.map((task) => (
          <li key={task.id} className="grid items-start gap-x-6 px-4 py-2 sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
            <ul>
              <TaskEntry task={task} withClient />
            </ul>
            <Link
              className="self-center truncate underline"
              to={`/clients/${task.clientId}${task.projectId ? `/projects/${task.projectId}` : ""}`}
            >
              {task.client}
              {task.project && `, ${task.project}`}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Calls to webhooks that nobody took; the log says why. */
function GivenUpCalls({ count }: { count: number }) {
  const { role } = useSession();
  return (
    <p className="mb-6 rounded-soft bg-glow p-4">
      {count === 1 ? "One webhook call failed. " : `${count} webhook calls failed. `}
      {role === "owner" ? (
        <Link to="/settings/webhooks" className="underline">
          See why, and send again
        </Link>
      ) : (
        "The owner can see why in Settings."
      )}
    </p>
  );
}

/** Where somebody can do something about it: whoever is no client yet has no page. */
const pageOf = (one: Schemas["FailedRow"]) =>
  one.clientId ? `/clients/${one.clientId}` : `/follow-through/${one.followThroughId}/people`;

/** Steps of follow-throughs that failed again and again, each with its reason. */
function Failed({ failed }: { failed: Schemas["FailedRow"][] }) {
  return (
    <section className="mb-6">
      <h2 className="mb-2 text-section">Steps that failed</h2>
      <Rows rows={failed} keyOf={(one) => one.runId}>
        {(one) => (
          <Row
            to={pageOf(one)}
            open={false}
            glow
            columns="grid-cols-1 @3xl/list:grid-cols-[11rem_14rem_minmax(0,1fr)]"
            action={
              <Link
                to={pageOf(one)}
                className={buttonLook("plain")}
                aria-label={`Look at: ${one.step} for ${one.name}`}
              >
                Look
              </Link>
            }
          >
            <strong className="truncate">{one.name}</strong>
            <span className="truncate">“{one.step}”</span>
            <span className="truncate" title={one.why}>
              {one.why}
            </span>
          </Row>
        )}
      </Rows>
    </section>
  );
}

function Stuck({ stuck, open }: { stuck: Schemas["StuckRow"][]; open: string | null }) {
  return (
    <section className="mb-6">
      <h2 className="mb-2 text-section">Undelivered messages</h2>
      <Rows rows={stuck} keyOf={(mail) => mail.id}>
        {(mail) => (
          <Row
            to={mailPath(mail)}
            open={mailPath(mail) === open}
            glow
            columns="grid-cols-2 @3xl/list:grid-cols-[9.5rem_11rem_minmax(0,1fr)_15rem]"
            action={
              <Link
                to={mailPath(mail)}
                className={buttonLook("plain")}
                aria-label={`Look at: ${mail.subject} to ${mail.name}`}
              >
                Look
              </Link>
            }
          >
            <span className="truncate">{mail.perhaps ? "Perhaps sent" : "Not delivered"}</span>
            <strong className="truncate">{mail.name}</strong>
            <span className="hidden truncate @3xl/list:block">“{mail.subject}”</span>
            <span className="col-span-2 tabular-nums @3xl/list:col-span-1">written {mail.written}</span>
          </Row>
        )}
      </Rows>
    </section>
  );
}

function Nods({ nods, gaps, open }: { nods: Schemas["NodRow"][]; gaps: string | null; open: string | null }) {
  const navigate = useNavigate();
  const first = nods.find((nod) => nod.goes === null);
  useLetters(
    first && !open ? [{ letter: "N", words: "Go through the nods", run: () => void navigate(nodPath(first)) }] : [],
  );
  return (
    <section className="mb-6">
      <div className="mb-2 flex flex-wrap items-baseline gap-x-3">
        <h2 className="text-section">
          Waiting for your nod {gaps && <span className="ml-1 font-body text-note font-normal text-slate">{gaps}</span>}
        </h2>
        {first && !open && (
          <Link to={nodPath(first)} className={`${buttonLook("plain")} ml-auto`}>
            Go through them <KeyCap>N</KeyCap>
          </Link>
        )}
      </div>
      <Rows rows={nods} keyOf={(nod) => nodPath(nod)}>
        {(nod) => (
          <Row
            to={nodPath(nod)}
            open={nodPath(nod) === open}
            glow={nod.goes === null}
            columns="grid-cols-2 @3xl/list:grid-cols-[16rem_11rem_minmax(0,1fr)_9rem]"
            action={
              <Link
                to={nodPath(nod)}
                className={buttonLook("plain")}
                aria-label={`Read and send: ${nod.stepName} to ${nod.name}`}
              >
                Read and send
              </Link>
            }
          >
            <span className="truncate">{nod.stepName}</span>
            <strong className="truncate">{nod.name}</strong>
            <span className="hidden truncate @3xl/list:block">
              {nod.subject ? `“${nod.subject}”` : "no message"}
              {nod.gaps > 0 && <span className="text-slate"> {nod.gaps === 1 ? "one gap" : `${nod.gaps} gaps`}</span>}
            </span>
            <span title={nod.exactly} className="col-span-2 tabular-nums @3xl/list:col-span-1">
              {nod.goes ? `goes ${nod.goes}` : nod.since}
            </span>
          </Row>
        )}
      </Rows>
    </section>
  );
}

/** Whose keeping period ends within a week, so that nobody is surprised. */
function ErasedSoon({ clients }: { clients: Schemas["ErasedSoon"][] }) {
  const { role } = useSession();
  const keep = useMutation({
    mutationFn: (id: string) => orProblem(api.PUT("/api/clients/{id}/kept", { params: { path: { id } } })),
  });
  return (
    <section className="mb-6 rounded-soft bg-glow p-4">
      <h2 className="mb-2 text-section">
        Erased soon: your keeping period ends
        {clients.length > 3 && <span className="ml-2 font-body font-normal">{clients.length} clients</span>}
      </h2>
      {/* However many they are, the day's note stays in sight. */}
      <ul className="grid max-h-36 gap-1 overflow-y-auto">
        {clients.map((client) => (
          <li key={client.id} className="flex flex-wrap items-center gap-x-3">
            <Link className="underline" to={`/clients/${client.id}`}>
              {client.name}
            </Link>
            <span className="text-slate">{client.on}</span>
            {role === "owner" && (
              <Button weight="quiet" disabled={keep.isPending} onClick={() => keep.mutate(client.id!)}>
                Keep {client.name}
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Failure error={keep.error} />
    </section>
  );
}
