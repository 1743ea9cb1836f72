import { Menu, MenuItem } from "../../kit/Menu";
import { Dialog } from "../../kit/Dialog";
import { useState, type FormEvent } from "react";
import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { orProblem, sentenceOf, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { TextBox } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { useSendKey } from "../../api/useSendKey";

interface Props {
  row: Schemas["FormRow"];
  onArchive: () => void;
}

/** What can be done with one form from the list. */
export function FormMenu({ row, onArchive }: Props) {
  const navigate = useNavigate();
  const notice = useNotice();
  const sendKey = useSendKey();
  const [renaming, setRenaming] = useState(false);
  const path = { id: row.id };
  const copy = useMutation({
    mutationFn: () => orProblem(api.POST("/api/forms/{id}/copies", { params: { path }, headers: sendKey.for(row.id) })),
    onSuccess: ({ id }) => {
      sendKey.done();
      void navigate(`/forms/${id}`);
    },
    onError: (error) => notice({ words: sentenceOf(error) }),
  });
  return (
    <>
      <Menu more={`More for ${row.title}`}>
        <MenuItem onSelect={() => setRenaming(true)}>Rename</MenuItem>
        <MenuItem onSelect={() => copy.mutate()}>Copy</MenuItem>
        <MenuItem asChild>
          <a href={`/api/forms/${row.id}/form.json`} download>
            Save as a file
          </a>
        </MenuItem>
        <MenuItem onSelect={onArchive}>{row.archived ? "Bring back" : "Put away"}</MenuItem>
      </Menu>
      {renaming && <RenameDialog row={row} onDone={() => setRenaming(false)} />}
    </>
  );
}

function RenameDialog({ row, onDone }: { row: Schemas["FormRow"]; onDone: () => void }) {
  const [title, setTitle] = useState(row.title);
  const path = { id: row.id };
  const rename = useMutation({
    mutationFn: async () => {
      const { content: was } = await orProblem(api.GET("/api/forms/{id}/content", { params: { path } }));
      await orProblem(
        api.PUT("/api/forms/{id}/content", {
          params: { path },
          body: { was, now: { ...was, title: title.trim() } },
        }),
      );
    },
    onSuccess: () => {
      onDone();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (title.trim() && !rename.isPending) rename.mutate();
  };
  return (
    <Dialog open onOpenChange={onDone} width="narrow" title="Rename the form">
      <form onSubmit={submit}>
        <TextBox
          label="Title"
          help={row.version > 0 ? "People read it when you publish the form again." : undefined}
          value={title}
          onChange={(e) => setTitle(e.target.value)}
        />
        <Failure error={rename.error} />
        <div className="mt-4 flex gap-2">
          <Button weight="main" type="submit" disabled={!title.trim() || rename.isPending}>
            Rename
          </Button>
          <Button onClick={onDone}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}
