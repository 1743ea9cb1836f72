import { useEffect, useState, type FormEvent } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { useNavigate, useParams } from "react-router";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { TextBox } from "../../kit/fields";
import { Failure, Skeleton } from "../../kit/states";
import { api, fetchSession } from "../../api/client";
import { useTitle } from "../shell/useTitle";
import { SignedOutPage } from "./SignedOutPage";

/** A link that lets one person in, once. */
export function JoinPage() {
  const { token = "" } = useParams();
  const path = { token };
  useTitle("Come in");
  const invite = useQuery({
    ...ask(["join", token], () => api.GET("/api/join/{token}", { params: { path } })),
    staleTime: Infinity,
  });
  if (!invite.data)
    return (
      <SignedOutPage title="Porch Light">
        {invite.error ? <Failure error={invite.error} /> : <Skeleton rows={3} />}
      </SignedOutPage>
    );
  return (
    <SignedOutPage title={invite.data.business}>
      <JoinForm token={token} invite={invite.data} />
    </SignedOutPage>
  );
}

function JoinForm({ token, invite }: { token: string; invite: Schemas["JoinView"] }) {
  const navigate = useNavigate();
  const [name, setName] = useState(invite.name);
  const [password, setPassword] = useState("");
  // The token against forged requests goes with everything that changes something, here too.
  useEffect(() => void fetchSession().catch(() => {}), []);
  const join = useMutation({
    mutationFn: () =>
      orProblem(api.POST("/api/join/{token}", { params: { path: { token } }, body: { name, password } })),
    onSuccess: () => void navigate("/", { replace: true }),
  });
  const findings = findingsOf(join.error);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!join.isPending) join.mutate();
  };
  return (
    <form onSubmit={submit} className="grid gap-4">
      <p>
        {invite.newPassword
          ? "Choose a new password; every other window you are signed in to is then signed out."
          : `You sign in with ${invite.email} and the password you choose here.`}
      </p>
      <input type="hidden" autoComplete="username" value={invite.email} readOnly />
      <TextBox
        label="Your name"
        autoComplete="name"
        value={name}
        error={findings.get("name")}
        onChange={(e) => setName(e.target.value)}
      />
      <TextBox
        label="Password"
        help="At least ten characters."
        type="password"
        autoComplete="new-password"
        value={password}
        error={findings.get("password")}
        onChange={(e) => setPassword(e.target.value)}
      />
      {findings.size === 0 && <Failure error={join.error} />}
      <Button weight="main" type="submit" disabled={join.isPending} className="min-h-10 justify-center">
        Come in
      </Button>
    </form>
  );
}
