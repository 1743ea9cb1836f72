import { Dialog, DialogClose } from "../../kit/Dialog";
import { useState, type FormEvent } from "react";
import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { findingsOf, orProblem } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { TextBox } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useSendKey } from "../../api/useSendKey";

const nobody = { name: "", email: "", phone: "" };

/** Somebody who came by another way than a form. */
export function AddClient() {
  const [isOpen, setOpen] = useState(false);
  const [wanted, setWanted] = useState(nobody);
  const navigate = useNavigate();
  const sendKey = useSendKey();
  const add = useMutation({
    mutationFn: () => orProblem(api.POST("/api/clients", { body: wanted, headers: sendKey.for(wanted) })),
    onSuccess: ({ id }) => {
      sendKey.done();
      setOpen(false);
      setWanted(nobody);
      void navigate(`/clients/${id}`);
    },
  });
  const findings = findingsOf(add.error);
  const set = (part: Partial<typeof nobody>) => setWanted((before) => ({ ...before, ...part }));
  return (
    <Dialog open={isOpen} onOpenChange={setOpen} trigger={<Button>Add a client</Button>} title="Add a client">
      <form
        noValidate
        className="grid gap-3"
        onSubmit={(event: FormEvent) => {
          event.preventDefault();
          if (!add.isPending) add.mutate();
        }}
      >
        <TextBox
          label="Name"
          autoComplete="off"
          value={wanted.name}
          error={findings.get("name")}
          onChange={(e) => set({ name: e.target.value })}
        />
        <TextBox
          label="E-mail"
          type="email"
          autoComplete="off"
          value={wanted.email}
          error={findings.get("email")}
          onChange={(e) => set({ email: e.target.value })}
        />
        <TextBox
          label="Phone"
          type="tel"
          autoComplete="off"
          value={wanted.phone}
          error={findings.get("phone")}
          onChange={(e) => set({ phone: e.target.value })}
        />
        {findings.size === 0 && <Failure error={add.error} />}
        <span className="flex gap-2">
          <Button weight="main" type="submit" disabled={add.isPending}>
            Add them
          </Button>
          <DialogClose className={buttonLook("quiet")}>Cancel</DialogClose>
        </span>
      </form>
    </Dialog>
  );
}
