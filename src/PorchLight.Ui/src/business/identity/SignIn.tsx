import { Dialog } from "../../kit/Dialog";
import { useState, type FormEvent } from "react";
import { Button } from "../../kit/Button";
import { TextBox } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { signIn, type Session } from "../../api/client";
import { useTitle } from "../shell/useTitle";
import { SignedOutPage } from "./SignedOutPage";

/** The door for those who work here. */
export function SignInPage({ business, onSignedIn }: { business: string; onSignedIn: (session: Session) => void }) {
  useTitle("Sign in");
  return (
    <SignedOutPage title={business}>
      <SignInForm onSignedIn={onSignedIn} />
    </SignedOutPage>
  );
}

/** Asks again when the session has run out, over whatever was being done. */
export function SignInAgain({ onSignedIn }: { onSignedIn: (session: Session) => void }) {
  return (
    <Dialog
      open
      width="narrow"
      onEscapeKeyDown={(event) => event.preventDefault()}
      onPointerDownOutside={(event) => event.preventDefault()}
      title="You are signed out"
      about="Sign in again to carry on where you were. What you typed is still here."
    >
      <SignInForm onSignedIn={onSignedIn} />
    </Dialog>
  );
}

function SignInForm({ onSignedIn }: { onSignedIn: (session: Session) => void }) {
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [failure, setFailure] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (busy) return;
    setBusy(true);
    setFailure(null);
    signIn({ email, password })
      .then(onSignedIn, setFailure)
      .finally(() => setBusy(false));
  };
  return (
    <form onSubmit={submit} className="grid gap-4">
      <TextBox
        label="E-mail"
        type="email"
        autoComplete="username"
        required
        value={email}
        onChange={(e) => setEmail(e.target.value)}
      />
      <TextBox
        label="Password"
        type="password"
        autoComplete="current-password"
        required
        value={password}
        onChange={(e) => setPassword(e.target.value)}
      />
      <Failure error={failure} />
      <Button weight="main" type="submit" disabled={busy} className="min-h-10 justify-center">
        Sign in
      </Button>
    </form>
  );
}
