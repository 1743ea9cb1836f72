import { useState, type FormEvent } from "react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link } from "react-router";
import { findingsOf, orProblem } from "../../api/problem";
import { Button } from "../../kit/Button";
import { CopyBox } from "../../kit/CopyBox";
import { TextBox } from "../../kit/fields";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useSendKey } from "../../api/useSendKey";

const nobody = { email: "", givenName: "", familyName: "" };

/** Links for one person each: for who wrote by mail, and for private forms. */
export function PersonalLinks({ id }: { id: string }) {
  const queries = useQueryClient();
  const path = { id };
  const links = useQuery(ask(["links", id], () => api.GET("/api/forms/{id}/links", { params: { path } })));
  const [who, setWho] = useState(nobody);
  const sendKey = useSendKey();
  const make = useMutation({
    mutationFn: () =>
      orProblem(api.POST("/api/forms/{id}/links", { params: { path }, body: who, headers: sendKey.for(who) })),
    onSuccess: (rows) => {
      sendKey.done();
      queries.setQueryData(["links", id], rows);
      setWho(nobody);
    },
  });
  const withdraw = useMutation({
    mutationFn: (link: string) =>
      orProblem(api.DELETE("/api/forms/{id}/links/{link}", { params: { path: { id, link } } })),
    onSuccess: (rows) => queries.setQueryData(["links", id], rows),
  });
  const findings = findingsOf(make.error);
  const box = (name: keyof typeof nobody) => ({
    value: who[name],
    error: findings.get(name),
    onChange: (e: { target: { value: string } }) => setWho({ ...who, [name]: e.target.value }),
  });
  return (
    <div className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="mb-2 text-section">Personal links</h2>
      <p className="mb-3 text-slate">
        For someone who wrote to you by mail: the form already knows their name and address, and what you have on file
        for a client. A link works once, within 60 days.
      </p>
      <form
        noValidate
        className="mb-5 grid gap-3"
        onSubmit={(event: FormEvent) => {
          event.preventDefault();
          if (!make.isPending) make.mutate();
        }}
      >
        <TextBox label="Their e-mail" type="email" {...box("email")} />
        <div className="grid gap-3 sm:grid-cols-2">
          <TextBox label="First name" {...box("givenName")} />
          <TextBox label="Family name" {...box("familyName")} />
        </div>
        {findings.size === 0 && <Failure error={make.error} />}
        <Button type="submit" className="w-fit">
          Make a personal link
        </Button>
      </form>
      <Failure error={links.error ?? withdraw.error} />
      {links.isPending && <Skeleton rows={2} />}
      <ul className="grid gap-3">
        {links.data?.map((link) => (
          <li key={link.id} className="border-t border-line pt-3">
            <p className="mb-1 flex flex-wrap items-baseline gap-x-3">
              <strong>{link.name}</strong>
              <span className="text-slate">{link.state}</span>
              {link.inquiryId && (
                <Link to={`/inquiries/${link.inquiryId}`} className="underline">
                  See the inquiry
                </Link>
              )}
            </p>
            {link.open && (
              <>
                <CopyBox label={`Link for ${link.name}`} help={link.email} text={link.link} rows={2} />
                <Button weight="quiet" onClick={() => withdraw.mutate(link.id)}>
                  Withdraw it
                </Button>
              </>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
