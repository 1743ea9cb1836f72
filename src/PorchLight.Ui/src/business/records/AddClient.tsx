import { useState, type FormEvent } from "react";
import { Dialog } from "radix-ui";
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
    <Dialog.Root open={isOpen} onOpenChange={setOpen}>
      <Dialog.Trigger className={buttonLook("plain")}>Add a client</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-30 w-[28rem] max-w-[92vw] -translate-1/2 rounded-soft bg-card p-6 shadow-panel"
        >
          <Dialog.Title className="mb-3 text-[1.2rem]">Add a client</Dialog.Title>
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
              <Dialog.Close className={buttonLook("quiet")}>Cancel</Dialog.Close>
            </span>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
