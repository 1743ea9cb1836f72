import { useState } from "react";
import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { findingsOf, orProblem } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useFocusBack } from "../../kit/useFocusBack";
import { SelectBox, TextBox } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useSendKey } from "../../api/useSendKey";
import { useProjectParts } from "../clientParts/useProjectParts";

/** Another piece of work for a client, begun by hand. */
export function BeginProject({ client }: { client: string }) {
  const [wanted, setWanted] = useState<{ title: string; service: string } | null>(null);
  const button = useFocusBack(wanted !== null);
  const navigate = useNavigate();
  const sendKey = useSendKey();
  const parts = useProjectParts();
  const begin = useMutation({
    mutationFn: (body: { title: string; service: string }) =>
      orProblem(
        api.POST("/api/clients/{id}/projects", { params: { path: { id: client } }, body, headers: sendKey.for(body) }),
      ),
    onSuccess: ({ id }) => {
      sendKey.done();
      setWanted(null);
      void navigate(`/clients/${client}/projects/${id}`);
    },
  });
  const findings = findingsOf(begin.error);
  if (!wanted)
    return (
      <Button ref={button} weight="quiet" className="-ml-3" onClick={() => setWanted({ title: "", service: "" })}>
        Start another project
      </Button>
    );
  return (
    // Esc closes the box, and must not close the panel around it.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <form
      noValidate
      className="mt-3 grid gap-2 rounded-soft border border-edge p-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (!begin.isPending) begin.mutate(wanted);
      }}
      onKeyDown={(e) => {
        if (e.key !== "Escape") return;
        e.preventDefault();
        e.stopPropagation();
        setWanted(null);
      }}
    >
      <p className="text-slate">What you know about the person comes along. The project’s own fields start empty.</p>
      <TextBox
        label="Title of the project"
        value={wanted.title}
        error={findings.get("title")}
        autoComplete="off"
        // eslint-disable-next-line jsx-a11y/no-autofocus -- whoever asked for the box goes on in it
        autoFocus
        onChange={(e) => setWanted({ ...wanted, title: e.target.value })}
      />
      <SelectBox
        label="What it is about"
        value={wanted.service}
        error={findings.get("service")}
        onChange={(e) => setWanted({ ...wanted, service: e.target.value })}
      >
        <option value="">nothing from your list</option>
        {parts?.services.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </SelectBox>
      {findings.size === 0 && <Failure error={begin.error} />}
      <span className="flex gap-2">
        <Button weight="main" type="submit" disabled={begin.isPending}>
          Begin it
        </Button>
        <Button weight="quiet" onClick={() => setWanted(null)}>
          Cancel
        </Button>
      </span>
    </form>
  );
}
