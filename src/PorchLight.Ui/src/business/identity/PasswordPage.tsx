import { Page } from "../../kit/Page";
import { useState, type FormEvent } from "react";
import { useMutation } from "@tanstack/react-query";
import { findingsOf, orProblem } from "../../api/problem";
import { Button } from "../../kit/Button";
import { TextBox } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useTitle } from "../shell/useTitle";

const blank = { current: "", next: "" };

/** Everybody's own password. */
export function PasswordPage() {
  useTitle("Change your password");
  const [words, setWords] = useState(blank);
  const save = useMutation({
    mutationFn: () => orProblem(api.POST("/api/me/password", { body: words })),
    onSuccess: () => setWords(blank),
  });
  const findings = findingsOf(save.error);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!save.isPending) save.mutate();
  };
  return (
    <Page title="Change your password">
      <form onSubmit={submit} className="grid max-w-md gap-4 rounded-soft bg-card p-6 shadow-soft">
        <TextBox
          label="Current password"
          type="password"
          autoComplete="current-password"
          value={words.current}
          error={findings.get("current")}
          onChange={(e) => setWords({ ...words, current: e.target.value })}
        />
        <TextBox
          label="New password"
          help="At least ten characters. Every other window you are signed in to is then signed out."
          type="password"
          autoComplete="new-password"
          value={words.next}
          error={findings.get("next")}
          onChange={(e) => setWords({ ...words, next: e.target.value })}
        />
        {findings.size === 0 && <Failure error={save.error} />}
        <div className="flex items-center gap-3">
          <Button weight="main" type="submit" disabled={save.isPending}>
            Change it
          </Button>
          <span role="status" className="text-moss">
            {save.isSuccess && "Your password is changed."}
          </span>
        </div>
      </form>
    </Page>
  );
}
