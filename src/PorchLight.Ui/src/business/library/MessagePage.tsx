import { useDeferredValue, useState } from "react";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { SelectBox, TextBox } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../client";
import { MessageFields } from "../edits/MessageFields";
import { SavedForm } from "../edits/SavedForm";
import { useEdit } from "../edits/useEdit";
import { useMessageParts } from "../edits/useMessageParts";
import { useTitle } from "../shell/useTitle";
import { useSendKey } from "../useSendKey";

type View = Schemas["LibraryMessageView"];

/** One message of the library: written, seen as somebody would get it, and tried. */
export function MessagePage() {
  const { id = "" } = useParams();
  const query = useQuery({
    queryKey: ["library-message", id],
    queryFn: () => orProblem(api.GET("/api/library/messages/{id}", { params: { path: { id } } })),
    refetchOnMount: "always",
  });
  useTitle(query.data?.row.name);
  // What is edited starts from what is stored now, never from what was seen the last time.
  if (!query.data || !query.isFetchedAfterMount)
    return (
      <main className="p-10">
        <h1 className="mb-3 text-2xl">Message</h1>
        {query.error ? <Failure error={query.error} /> : <Skeleton rows={6} />}
      </main>
    );
  return <Message key={id} id={id} view={query.data} />;
}

function Message({ id, view }: { id: string; view: View }) {
  const queries = useQueryClient();
  const parts = useMessageParts();
  const path = { id };
  const edit = useEdit(view.content, async (body) => {
    const next = await orProblem(api.PUT("/api/library/messages/{id}", { params: { path }, body }));
    queries.setQueryData(["library-message", id], next);
    void queries.invalidateQueries({ queryKey: ["library"] });
    void queries.invalidateQueries({ queryKey: ["message-parts"] });
    return next.content;
  });
  const { now } = edit;
  return (
    <main className="relative mx-auto h-full max-w-7xl overflow-y-auto p-6 sm:px-10">
      <p className="mb-1">
        <Link to="/library" className="underline">
          Library
        </Link>
      </p>
      <h1 className="mb-4 text-2xl">{now.name || "A message without a name"}</h1>
      <div className="grid items-start gap-6 lg:grid-cols-2">
        <SavedForm edit={edit} nameOf={(place) => (place === "name" ? "Name" : "Message")}>
          <div className="grid gap-4">
            <div className="grid gap-4 sm:grid-cols-2">
              <TextBox
                label="What it is called"
                help="Only you see it."
                value={now.name}
                error={edit.findings.get("name")}
                onChange={(e) => edit.change({ name: e.target.value })}
              />
              <TextBox
                label="Folder"
                help="A new name makes a new folder."
                list="library-folders"
                value={now.folder}
                error={edit.findings.get("folder")}
                onChange={(e) => edit.change({ folder: e.target.value })}
              />
              <datalist id="library-folders">
                {parts?.folders.map((folder) => (
                  <option key={folder} value={folder} />
                ))}
              </datalist>
            </div>
            <MessageFields message={now.message} onChange={(message) => edit.change({ message })} />
          </div>
        </SavedForm>
        <div className="grid gap-6">
          <Preview message={now.message} />
          <Uses row={view.row} />
          <Acts id={id} isDirty={edit.isDirty} />
        </div>
      </div>
    </main>
  );
}

/** The message as one person would get it. */
function Preview({ message }: { message: Schemas["MessageTemplate"] }) {
  const [client, setClient] = useState("");
  const shown = useDeferredValue(message);
  const people = useQuery({
    queryKey: ["people-to-see-it-for"],
    queryFn: () => orProblem(api.GET("/api/library/messages/people")),
  });
  const body = { message: shown, clientId: client || null };
  const preview = useQuery({
    queryKey: ["message-preview", body],
    queryFn: () => orProblem(api.POST("/api/library/messages/preview", { body })),
    placeholderData: keepPreviousData,
  });
  return (
    <section aria-label="As they get it" className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="mb-2 text-[1.07rem]">As they get it</h2>
      <SelectBox label="Who gets it" value={client} onChange={(e) => setClient(e.target.value)}>
        <option value="">An example</option>
        {people.data?.map((one) => (
          <option key={one.key} value={one.key}>
            {one.name}
          </option>
        ))}
      </SelectBox>
      <Failure error={preview.error} />
      {preview.data && (
        <div className="mt-3 rounded-soft border border-edge p-4">
          <p className="text-slate">To {preview.data.to}</p>
          <p className="mb-2 font-semibold">{preview.data.subject || "no subject yet"}</p>
          {/* The server has made it of the few tags a message can have, and cleaned it. */}
          <div className="formatted wrap-anywhere" dangerouslySetInnerHTML={{ __html: preview.data.html }} />
          {preview.data.files.length > 0 && (
            <p className="mt-2 border-t border-line pt-2 text-slate">With it: {preview.data.files.join(", ")}</p>
          )}
        </div>
      )}
    </section>
  );
}

function Uses({ row }: { row: Schemas["LibraryRow"] }) {
  return (
    <section aria-label="Where it is used" className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="mb-2 text-[1.07rem]">Where it is used</h2>
      {row.usedIn.length === 0 && <p>In no follow-through yet. A step takes its words when you choose it there.</p>}
      <ul className="list-disc pl-5">
        {row.usedIn.map((use) => (
          <li key={`${use.followThroughId} ${use.step}`}>
            <Link to={`/follow-through/${use.followThroughId}`} className="underline">
              {use.followThrough}
            </Link>
            , “{use.step}”{use.hasOtherWords && ": its words are not these any more"}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Acts({ id, isDirty }: { id: string; isDirty: boolean }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const notice = useNotice();
  const sendKey = useSendKey();
  const [isLeaving, setLeaving] = useState(false);
  const path = { id };
  const test = useMutation({
    mutationFn: () =>
      orProblem(api.POST("/api/library/messages/{id}/test", { params: { path }, headers: sendKey.for(id) })),
    onSuccess: () => {
      sendKey.done();
      notice({ words: "A test went to your own address." });
    },
  });
  const remove = useMutation({
    mutationFn: () => orProblem(api.DELETE("/api/library/messages/{id}", { params: { path } })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ["library"] });
      void navigate("/library");
    },
  });
  return (
    <section aria-label="Try it or take it out">
      {isLeaving ? (
        <p className="flex flex-wrap items-center gap-2">
          Take it out of the library? Steps that took its words keep them.
          <Button weight="main" disabled={remove.isPending} onClick={() => remove.mutate()}>
            Take it out
          </Button>
          <Button weight="quiet" onClick={() => setLeaving(false)}>
            Keep it
          </Button>
        </p>
      ) : (
        <p className="flex flex-wrap gap-2">
          <Button disabled={test.isPending || isDirty} onClick={() => test.mutate()}>
            {isDirty ? "Save it to try it" : "Send it to me as a test"}
          </Button>
          <Button weight="quiet" onClick={() => setLeaving(true)}>
            Take it out of the library
          </Button>
        </p>
      )}
      <Failure error={test.error ?? remove.error} />
    </section>
  );
}
