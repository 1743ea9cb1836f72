import { Dialog, DialogClose } from "../../kit/Dialog";
import { useState } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { askOnce } from "../../api/ask";
import { useNavigate } from "react-router";
import { orProblem } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";

/** Erases a person for good, after a list of what goes and what stays. */
export function EraseClient(props: { client: string; name: string; onErasing: (isErasing: boolean) => void }) {
  const { name } = props;
  const [isOpen, setOpen] = useState(false);
  return (
    <Dialog
      open={isOpen}
      onOpenChange={setOpen}
      trigger={
        <Button weight="quiet" className="-ml-3 text-brick">
          Erase this client
        </Button>
      }
      title={`Erase ${name}?`}
    >
      <Preview {...props} />
    </Dialog>
  );
}

function Preview(props: { client: string; name: string; onErasing: (isErasing: boolean) => void }) {
  const { client, name, onErasing } = props;
  const navigate = useNavigate();
  const say = useNotice();
  const path = { path: { id: client } };
  const erase = useMutation({
    mutationFn: () => orProblem(api.DELETE("/api/clients/{id}", { params: path })),
    // Whoever is being erased is not asked for again.
    onMutate: () => onErasing(true),
    onError: () => onErasing(false),
    onSuccess: () => {
      void navigate("/clients");
      say({ words: `${name} is erased.` });
    },
  });
  const preview = useQuery({
    ...askOnce(["erasing", client], () => api.GET("/api/clients/{id}/erasing", { params: path })),
    enabled: !erase.isPending && !erase.isSuccess,
    gcTime: 0,
  });
  return (
    <>
      <Failure error={preview.error ?? erase.error} />
      {preview.isPending && <Skeleton rows={4} />}
      {preview.data && (
        <>
          <Lines title="This is deleted for good" lines={preview.data.goes} />
          <Lines title="This stays" lines={preview.data.stays} />
          <p className="mt-5 flex flex-wrap gap-2">
            <Button
              className="border-brick! bg-brick! text-card!"
              disabled={erase.isPending}
              onClick={() => erase.mutate()}
            >
              Erase for good
            </Button>
            <DialogClose className={buttonLook("quiet")}>Keep them</DialogClose>
          </p>
        </>
      )}
    </>
  );
}

function Lines({ title, lines }: { title: string; lines: string[] }) {
  return (
    <section className="mt-3">
      <h3 className="mb-1 font-body font-semibold">{title}</h3>
      <ul className="list-disc pl-5">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  );
}
