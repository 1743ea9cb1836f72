import { useEffect, useRef, useState, type FormEvent } from "react";
import { findingsOf, Problem, sentenceOf, type Schemas } from "../../api/problem";
import { useSendKey } from "../../api/useSendKey";
import { box, brandButton } from "../controls/control";
import { book, showTimes, type BookingTime, type BookingView, type MeetingPageView } from "./client";
import { Nearest } from "./Nearest";
import { Times } from "./Times";

/** What browsers know of the box beside a choice of place. */
const boxes: Partial<Record<Schemas["MeetingPlaceKind"], { autoComplete: string; type: string }>> = {
  phone: { autoComplete: "tel", type: "tel" },
  theirs: { autoComplete: "street-address", type: "text" },
};

interface Props {
  /** Whether it stands within a page that has a headline of its own. */
  isWithin?: boolean;
  token: string;
  view: MeetingPageView;
  booking: BookingView;
  zone: string;
  onZone: (zone: string) => void;
  onBooked: (view: MeetingPageView) => void;
}

/** Free times, and what has to be said to take one of them. */
export function Booking({ isWithin = false, token, view, booking, zone, onZone, onBooked }: Props) {
  const [times, setTimes] = useState({ of: booking, table: booking.times });
  const [chosen, setChosen] = useState<BookingTime | null>(null);
  const [details, setDetails] = useState<Schemas["BookingDetails"]>({
    givenName: "",
    familyName: "",
    email: "",
    place: booking.places[0]!.kind,
    placeWords: booking.places[0]!.known,
    answers: {},
  });
  const [failure, setFailure] = useState<unknown>(null);
  const [isSending, setSending] = useState(false);
  const sendKey = useSendKey();
  const form = useRef<HTMLFormElement>(null);
  const findings = findingsOf(failure);
  const table = times.of === booking ? times.table : booking.times;
  const change = (part: Partial<Schemas["BookingDetails"]>) => setDetails((before) => ({ ...before, ...part }));

  // Where something has to be put right, one goes on there.
  useEffect(() => {
    if (failure) form.current?.querySelector<HTMLElement>("[aria-invalid=true], [data-taken]")?.focus();
  }, [failure]);

  const choose = (time: BookingTime) => {
    setChosen(time);
    if (failure instanceof Problem && failure.nearest.length > 0) setFailure(null);
  };
  const isUntouched = !booking.known && !details.givenName && !details.email && !failure;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!chosen || isSending) return;
    // Who has said nothing of themselves yet has not seen that they are asked.
    if (isUntouched) return form.current?.querySelector<HTMLElement>("[data-about] input")?.focus();
    const body = { start: chosen.start, zone, details };
    setSending(true);
    book(token, body, sendKey.for(body))
      .then(
        (next) => {
          sendKey.done();
          onBooked(next);
        },
        (error: unknown) => {
          setFailure(error);
          if (!(error instanceof Problem && error.status === 409)) return;
          setChosen(null);
          return showTimes(token, zone).then((table) => setTimes({ of: booking, table }));
        },
      )
      .catch((error: unknown) => setFailure(error))
      .finally(() => setSending(false));
  };

  const Title = isWithin ? "h2" : "h1";
  const place = booking.places.find(({ kind }) => kind === details.place)!;
  return (
    <form ref={form} onSubmit={submit} noValidate>
      {!isWithin && <p className="mb-1 text-slate">{view.business}</p>}
      <Title className={`mb-2 ${isWithin ? "text-lead" : "text-title"}`}>
        {view.title}
        {booking.hosts && `, with ${booking.hosts}`}
      </Title>
      {booking.purpose && <p className="mb-2 max-w-prose whitespace-pre-line">{booking.purpose}</p>}
      <p className="mb-5 max-w-prose">
        {booking.where}, {booking.minutes} minutes.
        {booking.about && !isWithin && ` You told us already: ${booking.about}. Nothing needs to be said twice.`}
      </p>
      {booking.closed ? (
        <p className="rounded-soft bg-card p-5 shadow-soft">
          {booking.closed}{" "}
          <a className="underline" href={`mailto:${view.businessMail}`}>
            {view.businessMail}
          </a>
        </p>
      ) : (
        <>
          <Times
            times={table}
            daysAtFirst={isWithin ? 3 : undefined}
            isWaiting={view.zone !== zone}
            chosen={chosen}
            onChoose={choose}
            zone={zone}
            onZone={(next) => {
              setChosen(null);
              onZone(next);
            }}
          />
          {failure instanceof Problem && failure.status === 409 ? (
            <Nearest problem={failure} chosen={chosen} onChoose={setChosen} />
          ) : null}
          {chosen && (
            <>
              <section
                data-about
                aria-label="About you"
                className="mt-4 grid gap-4 rounded-soft bg-card p-4 shadow-soft sm:p-5"
              >
                {booking.known ? (
                  <p>
                    This is for <strong>{booking.known}</strong>.
                  </p>
                ) : (
                  <div className="grid gap-4 sm:grid-cols-3">
                    <Field label="First name" error={findings.get("givenName")}>
                      <input
                        className={box}
                        autoComplete="given-name"
                        value={details.givenName}
                        aria-invalid={findings.has("givenName") || undefined}
                        onChange={({ target }) => change({ givenName: target.value })}
                      />
                    </Field>
                    <Field label="Family name" optional error={findings.get("familyName")}>
                      <input
                        className={box}
                        autoComplete="family-name"
                        value={details.familyName}
                        aria-invalid={findings.has("familyName") || undefined}
                        onChange={({ target }) => change({ familyName: target.value })}
                      />
                    </Field>
                    <Field label="Your e-mail" error={findings.get("email")}>
                      <input
                        className={box}
                        type="email"
                        autoComplete="email"
                        value={details.email}
                        aria-invalid={findings.has("email") || undefined}
                        onChange={({ target }) => change({ email: target.value })}
                      />
                    </Field>
                  </div>
                )}
                {booking.places.length > 1 && (
                  <fieldset>
                    <legend className="mb-1 font-semibold">Where do we meet?</legend>
                    <span className="flex flex-wrap gap-x-5 gap-y-2">
                      {booking.places.map(({ kind, label, known }) => (
                        <label key={kind} className="flex min-h-9 items-center gap-2">
                          <input
                            type="radio"
                            name="place"
                            className="size-[1.15rem] accent-[var(--brand)]"
                            checked={details.place === kind}
                            onChange={() => change({ place: kind, placeWords: known })}
                          />
                          {label}
                        </label>
                      ))}
                    </span>
                  </fieldset>
                )}
                {place.ask && (
                  <Field label={place.ask} error={findings.get("placeWords")}>
                    <input
                      className={`${box} sm:max-w-md`}
                      type={boxes[place.kind]?.type}
                      autoComplete={boxes[place.kind]?.autoComplete}
                      value={details.placeWords}
                      aria-invalid={findings.has("placeWords") || undefined}
                      onChange={({ target }) => change({ placeWords: target.value })}
                    />
                  </Field>
                )}
                {booking.questions.map(({ key, wording, isRequired }) => (
                  <Field key={key} label={wording} optional={!isRequired} error={findings.get(`answers.${key}`)}>
                    <textarea
                      className={box}
                      rows={2}
                      value={details.answers[key] ?? ""}
                      aria-invalid={findings.has(`answers.${key}`) || undefined}
                      onChange={({ target }) => change({ answers: { ...details.answers, [key]: target.value } })}
                    />
                  </Field>
                ))}
              </section>
              <div className="sticky bottom-2 mt-4 flex flex-wrap items-center justify-between gap-3 rounded-soft border border-edge bg-glow p-4 shadow-panel">
                <p aria-live="polite">
                  <strong>{chosen.says}</strong>
                  <span className="block text-note text-slate">{booking.change}</span>
                </p>
                <button type="submit" className={brandButton} aria-disabled={isSending}>
                  {isSending ? "One moment …" : isUntouched ? "Go on" : "Take this time"}
                </button>
                {!!failure && !(failure instanceof Problem && failure.status === 409) && findings.size !== 1 && (
                  <p role="alert" className="w-full font-semibold text-brick">
                    {sentenceOf(failure)}
                  </p>
                )}
              </div>
            </>
          )}
        </>
      )}
    </form>
  );
}

interface FieldProps {
  label: string;
  optional?: boolean;
  error?: string;
  children: React.ReactNode;
}

/** A label, its field, and what has to be put right in it. */
function Field({ label, optional = false, error, children }: FieldProps) {
  return (
    <label className="block min-w-0">
      <span className="mb-1 block font-semibold">
        {label}
        {optional && <span className="font-normal text-slate"> optional</span>}
      </span>
      {children}
      {error && <span className="mt-1 block font-semibold text-brick">{error}</span>}
    </label>
  );
}
