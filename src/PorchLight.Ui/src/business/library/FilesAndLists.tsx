import { Page } from "../../kit/Page";
import { useRef, useState } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { controlLook } from "../../kit/fields";
import { RowItem } from "../../kit/Rows";
import { newKey } from "../../kit/newKey";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { fileSize } from "../../kit/fileSize";
import { api } from "../../api/client";
import { useList } from "../lists/list";
import { ListBody, SaveList } from "../lists/ListBody";
import { say } from "../shell/say";
import { uploadFile } from "../../api/uploadFile";
import { LibraryTabs } from "./LibraryTabs";
import { useTitle } from "../shell/useTitle";
import { useSendKey } from "../../api/useSendKey";

/** The business's own files and lists, and where they are used. */
export function FilesAndLists() {
  useTitle("Files and lists");
  return (
    <Page title="Library">
      <LibraryTabs />
      <div className="grid items-start gap-6 lg:grid-cols-2">
        <Files />
        <Lists />
      </div>
    </Page>
  );
}

function useUpload() {
  const sendKey = useSendKey();
  return useMutation({
    mutationFn: (file: File) => uploadFile(file, sendKey.for([file.name, file.size, file.lastModified])),
  });
}

function Files() {
  const list = useList("/api/files", "/files");
  const upload = useUpload();
  return (
    <section aria-labelledby="files-heading" className="@container/list rounded-soft bg-card p-6 shadow-soft">
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <h2 id="files-heading" className="mr-auto text-section">
          Files
        </h2>
        <SaveList list={list} />
        <Picker label="Upload a file" disabled={upload.isPending} onPick={(file) => upload.mutate(file)} />
      </div>
      <Failure error={upload.error} />
      <ListBody
        list={list}
        one="file"
        many="files"
        search="Find by name"
        all="All files"
        empty="Pictures, films and papers that your forms show or hand out. Upload the first one."
      >
        {(file) => <FileLine file={file} />}
      </ListBody>
    </section>
  );
}

function FileLine({ file }: { file: Schemas["OwnFileView"] }) {
  const params = { path: { id: file.id } };
  const rename = useMutation({
    mutationFn: (name: string) => orProblem(api.PUT("/api/files/{id}/name", { params, body: { name } })),
  });
  const remove = useMutation({
    mutationFn: () => orProblem(api.DELETE("/api/files/{id}", { params })),
  });
  const upload = useUpload();
  const replace = useMutation({
    mutationFn: async (by: File) => {
      const { id } = await upload.mutateAsync(by);
      await orProblem(api.PUT("/api/files/{id}/replacement", { params, body: { by: id } }));
    },
  });
  return (
    <RowItem className="px-4 py-3">
      <div className="flex flex-wrap items-center gap-3">
        {file.group === "picture" ? (
          <img src={`/public/files/${file.id}`} alt="" className="size-11 shrink-0 rounded-soft object-cover" />
        ) : (
          <span className="w-11 shrink-0 text-center text-slate">{groupWords[file.group]}</span>
        )}
        <NameBox label={`Name of ${file.name}`} name={file.name} onName={(name) => rename.mutate(name)} />
        <span className="shrink-0 text-slate tabular-nums">{fileSize(file.bytes)}</span>
      </div>
      <div className="mt-1 flex flex-wrap items-center gap-2 pl-14">
        <span className="flex-1 text-slate">{usedWords(file.usedIn)}</span>
        {file.usedIn.length > 0 ? (
          <Picker
            label={`Replace ${file.name}`}
            words="Replace"
            disabled={replace.isPending}
            onPick={(by) => replace.mutate(by)}
          />
        ) : (
          <Button weight="quiet" disabled={remove.isPending} onClick={() => remove.mutate()}>
            Delete
          </Button>
        )}
      </div>
      {replace.isSuccess && (
        <p role="status" className="pl-14 text-moss">
          Replaced in your working copies. People see it when you publish the forms again.
        </p>
      )}
      <Failure error={rename.error ?? remove.error ?? replace.error} />
    </RowItem>
  );
}

const groupWords: Record<Schemas["FileGroup"], string> = {
  picture: "picture",
  document: "paper",
  table: "table",
  sound: "sound",
  film: "film",
  parcel: "zip",
};

const usedWords = (places: string[]) => (places.length === 0 ? "Not used." : `Used in ${places.join(", ")}.`);

function Lists() {
  const lists = useQuery(ask(["lists"], () => api.GET("/api/lists")));
  const add = useMutation({
    mutationFn: (file: File) => saveList(newKey(), file.name.replace(/\.csv$/i, ""), file),
  });
  return (
    <section aria-labelledby="lists-heading" className="rounded-soft bg-card p-6 shadow-soft">
      <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
        <h2 id="lists-heading" className="text-section">
          Lists to look something up in
        </h2>
        <Picker
          label="Upload a list"
          accept=".csv,text/csv"
          disabled={add.isPending}
          onPick={(file) => add.mutate(file)}
        />
      </div>
      <p className="mb-2 text-slate">
        A CSV file, its first line naming the columns: schools, venues, colours of a maker.
      </p>
      <Failure error={add.error ?? lists.error} />
      {lists.isPending && <Skeleton rows={3} />}
      {lists.data?.length === 0 && <Empty>There is no list yet.</Empty>}
      <ul>
        {lists.data?.map((list) => (
          <ListLine key={list.id} list={list} />
        ))}
      </ul>
    </section>
  );
}

const saveList = (id: string, name: string, file: File) =>
  orProblem(
    api.PUT("/api/lists/{id}", {
      params: { path: { id }, query: { name } },
      body: file as never,
      bodySerializer: (body) => body as BodyInit,
      headers: { "Content-Type": "text/csv" },
    }),
  );

function ListLine({ list }: { list: Schemas["LookUpListView"] }) {
  const params = { path: { id: list.id } };
  const rename = useMutation({
    mutationFn: (name: string) => orProblem(api.PUT("/api/lists/{id}/name", { params, body: { name } })),
  });
  const replace = useMutation({ mutationFn: (file: File) => saveList(list.id, list.name, file) });
  const remove = useMutation({
    mutationFn: () => orProblem(api.DELETE("/api/lists/{id}", { params })),
  });
  return (
    <li className="border-b border-line py-3 last:border-0">
      <div className="flex flex-wrap items-center gap-3">
        <NameBox label={`Name of ${list.name}`} name={list.name} onName={(name) => rename.mutate(name)} />
        <span className="shrink-0 text-slate tabular-nums">{say(list.lines, "line")}</span>
      </div>
      <p className="mt-1 text-slate">Columns: {list.columns.join(", ")}.</p>
      <div className="flex flex-wrap items-center gap-2">
        <span className="flex-1 text-slate">{usedWords(list.usedIn.map((title) => `“${title}”`))}</span>
        <Picker
          label={`Replace ${list.name}`}
          words="Replace"
          accept=".csv,text/csv"
          disabled={replace.isPending}
          onPick={(file) => replace.mutate(file)}
        />
        {list.usedIn.length === 0 && (
          <Button weight="quiet" disabled={remove.isPending} onClick={() => remove.mutate()}>
            Delete
          </Button>
        )}
      </div>
      <Failure error={rename.error ?? replace.error ?? remove.error} />
    </li>
  );
}

/** A name that is kept when it is left. */
function NameBox({ label, name, onName }: { label: string; name: string; onName: (name: string) => void }) {
  const [typed, setTyped] = useState(name);
  const keep = () => {
    if (typed.trim() && typed !== name) onName(typed);
  };
  return (
    <input
      aria-label={label}
      className={`${controlLook} min-w-0 flex-1 basis-40`}
      value={typed}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={keep}
      onKeyDown={(e) => e.key === "Enter" && keep()}
    />
  );
}

interface PickerProps {
  label: string;
  /** What the button says, where the label says more. */
  words?: string;
  accept?: string;
  disabled: boolean;
  onPick: (file: File) => void;
}

function Picker({ label, words = label, accept, disabled, onPick }: PickerProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button aria-label={label} disabled={disabled} onClick={() => input.current?.click()}>
        {disabled ? "One moment …" : words}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={`${label}, the file`}
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) onPick(file);
        }}
      />
    </>
  );
}
