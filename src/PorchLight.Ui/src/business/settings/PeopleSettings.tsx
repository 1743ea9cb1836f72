import { useState, type FormEvent } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { findingsOf, orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { AskFirst } from "../../kit/AskFirst";
import { CopyBox } from "../../kit/CopyBox";
import { SelectBox, TextBox } from "../../kit/fields";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useSendKey } from "../../api/useSendKey";

type User = Schemas["UserRow"];

/** Who works here, and who is asked in. */
export function PeopleSettings() {
  const people = useQuery(ask(["people"], () => api.GET("/api/people")));
  const reload = () => void people.refetch();
  if (!people.data) return people.error ? <Failure error={people.error} /> : <Skeleton rows={4} />;
  return (
    <div className="grid gap-6">
      <ul className="rounded-soft bg-card shadow-soft">
        {people.data.users.map((user) => (
          <UserLine key={user.id} user={user} onChanged={reload} />
        ))}
      </ul>
      {people.data.invites.length > 0 && (
        <section>
          <h2 className="mb-2 text-section">Unused links</h2>
          <ul className="grid gap-4">
            {people.data.invites.map((invite) => (
              <InviteCard key={invite.id} invite={invite} onChanged={reload} />
            ))}
          </ul>
        </section>
      )}
      <Invite onChanged={reload} />
    </div>
  );
}

function UserLine({ user, onChanged }: { user: User; onChanged: () => void }) {
  const path = { user: user.id };
  const sendKey = useSendKey();
  const role = useMutation({
    mutationFn: (next: string) =>
      orProblem(api.POST("/api/people/{user}/role", { params: { path }, body: { role: next } })),
    onSettled: onChanged,
  });
  const link = useMutation({
    mutationFn: () =>
      orProblem(api.POST("/api/people/{user}/password-link", { params: { path }, headers: sendKey.for(user.id) })),
    onSuccess: () => {
      sendKey.done();
      onChanged();
    },
  });
  const remove = useMutation({
    mutationFn: () => orProblem(api.DELETE("/api/people/{user}", { params: { path } })),
    onSuccess: onChanged,
  });
  return (
    <li className="border-b border-line px-5 py-3 last:border-0">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <div className="min-w-52 flex-1">
          <strong>{user.name}</strong> {user.you && <span className="text-slate">(you)</span>}
          <p className="text-slate">{user.email}</p>
        </div>
        <select
          aria-label={`Role of ${user.name}`}
          value={user.role}
          disabled={role.isPending}
          onChange={(e) => role.mutate(e.target.value)}
          className="rounded-soft border border-edge bg-card px-2 py-1.5"
        >
          <option value="owner">Owner</option>
          <option value="member">Member</option>
        </select>
        <span className="flex items-center gap-2">
          {!user.you && (
            <Button
              disabled={link.isPending}
              aria-label={`A link by which ${user.name} chooses a new password`}
              onClick={() => link.mutate()}
            >
              New password
            </Button>
          )}
          <AskFirst
            words="Remove"
            label={`Remove ${user.name}`}
            act={`Remove ${user.name}`}
            keep="Keep"
            busy={remove.isPending}
            onAct={() => remove.mutate()}
          />
        </span>
      </div>
      <Failure error={role.error ?? link.error ?? remove.error} />
    </li>
  );
}

function InviteCard({ invite, onChanged }: { invite: Schemas["InviteRow"]; onChanged: () => void }) {
  const withdraw = useMutation({
    mutationFn: () => orProblem(api.DELETE("/api/people/invites/{id}", { params: { path: { id: invite.id } } })),
    onSettled: onChanged,
  });
  return (
    <li className="rounded-soft bg-card p-5 shadow-soft">
      <CopyBox
        label={invite.newPassword ? `New password for ${invite.name}` : `${invite.name} is invited as ${invite.role}`}
        help={`Send it to ${invite.email} in a way you trust. It works once, until ${invite.goodUntil}.`}
        text={invite.link}
        rows={1}
      />
      <Button weight="quiet" disabled={withdraw.isPending} onClick={() => withdraw.mutate()}>
        Withdraw the link
      </Button>
    </li>
  );
}

const nobody = { name: "", email: "", role: "member" };

function Invite({ onChanged }: { onChanged: () => void }) {
  const [person, setPerson] = useState(nobody);
  const sendKey = useSendKey();
  const invite = useMutation({
    mutationFn: () => orProblem(api.POST("/api/people/invites", { body: person, headers: sendKey.for(person) })),
    onSuccess: () => {
      sendKey.done();
      setPerson(nobody);
      onChanged();
    },
  });
  const findings = findingsOf(invite.error);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!invite.isPending) invite.mutate();
  };
  return (
    <form onSubmit={submit} noValidate className="rounded-soft bg-card p-5 shadow-soft">
      <h2 className="text-section">Invite someone</h2>
      <p className="mb-3 text-slate">
        A member does the daily work: forms, inquiries, clients, messages. An owner can change the settings, too.
      </p>
      <div className="grid items-start gap-4 sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)_8rem]">
        <TextBox
          label="Name"
          autoComplete="off"
          value={person.name}
          error={findings.get("name")}
          onChange={(e) => setPerson({ ...person, name: e.target.value })}
        />
        <TextBox
          label="E-mail"
          type="email"
          autoComplete="off"
          value={person.email}
          error={findings.get("email")}
          onChange={(e) => setPerson({ ...person, email: e.target.value })}
        />
        <SelectBox label="Role" value={person.role} onChange={(e) => setPerson({ ...person, role: e.target.value })}>
          <option value="member">Member</option>
          <option value="owner">Owner</option>
        </SelectBox>
      </div>
      {findings.size === 0 && <Failure error={invite.error} />}
      <Button weight="main" type="submit" disabled={invite.isPending} className="mt-4">
        Make a link
      </Button>
    </form>
  );
}
