import { useState, type FormEvent } from "react";
import { useMutation } from "@tanstack/react-query";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { TextBox } from "../../kit/fields";
import { Section } from "../../kit/Panel";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useTitle } from "../shell/useTitle";
import { CardFields, HoursFields, PromiseFields } from "../shell/businessFields";
import { SignedOutPage } from "./SignedOutPage";

/** What can be guessed of a business before it says a word; everything can be changed. */
function guess(): Schemas["FirstRun"] {
  const day = "09:00 to 17:00";
  return {
    key: new URLSearchParams(location.search).get("key") ?? "",
    password: "",
    business: {
      name: "",
      ownerName: "",
      mailAddress: "",
      region: new Intl.Locale(navigator.language).region ?? "",
      currency: "",
      zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      publicAddress: /^(localhost|127\.|\[::1\])/.test(location.host) ? "" : location.origin,
    },
    hours: {
      monday: day,
      tuesday: day,
      wednesday: day,
      thursday: day,
      friday: day,
      saturday: "",
      sunday: "",
      closed: "",
      sendFrom: "09:00",
      sendTo: "17:00",
    },
    promise: { hours: 24, clock: "workingDays" },
  };
}

/** The first page of an empty program. */
export function FirstRun({ onDone }: { onDone: () => void }) {
  useTitle("Set up your business");
  const [first, setFirst] = useState(guess);
  const make = useMutation({
    mutationFn: () => orProblem(api.POST("/api/first-run", { body: first })),
    onSuccess: onDone,
  });
  const findings = findingsOf(make.error);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!make.isPending) make.mutate();
  };
  return (
    <SignedOutPage title="Set up your business" wide>
      <form onSubmit={submit} noValidate>
        <p>
          A few words about your business, and your first form can take inquiries. All of it can be changed later in the
          settings.
        </p>
        <Failure error={make.error} takesFocus />
        <Section title="You and your business">
          <CardFields
            value={first.business}
            findings={findings}
            onChange={(part) => setFirst({ ...first, business: { ...first.business, ...part } })}
          />
          <div className="mt-4 grid gap-4 sm:grid-cols-2">
            <TextBox
              label="Password"
              help="You sign in with it and your e-mail. At least ten characters."
              type="password"
              autoComplete="new-password"
              value={first.password}
              error={findings.get("password")}
              onChange={(e) => setFirst({ ...first, password: e.target.value })}
            />
            <TextBox
              label="Key"
              help="You will find it in the window where you started Porch Light."
              autoComplete="off"
              value={first.key}
              error={findings.get("key")}
              onChange={(e) => setFirst({ ...first, key: e.target.value })}
            />
          </div>
        </Section>
        <Section title="Your hours">
          <HoursFields
            value={first.hours}
            findings={findings}
            onChange={(part) => setFirst({ ...first, hours: { ...first.hours, ...part } })}
          />
        </Section>
        <Section title="Your reply promise">
          <PromiseFields
            value={first.promise}
            findings={findings}
            onChange={(part) => setFirst({ ...first, promise: { ...first.promise, ...part } })}
          />
        </Section>
        <div className="mt-6">
          <Button weight="main" type="submit" disabled={make.isPending} className="min-h-10">
            Continue to your first form
          </Button>
        </div>
      </form>
    </SignedOutPage>
  );
}
