import { Page } from "../../kit/Page";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { askOnce } from "../../api/ask";
import { Link, useNavigate, useParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { AskFirst } from "../../kit/AskFirst";
import { TextBox } from "../../kit/fields";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { MessageFields } from "../messages/MessageFields";
import { SavedForm } from "../saving/SavedForm";
import { useEdit } from "../saving/useEdit";
import { useMessageParts } from "../messages/useMessageParts";
import { useTitle } from "../shell/useTitle";
import { useSendKey } from "../../api/useSendKey";
import { MessagePreview } from "./MessagePreview";

type View = Schemas["LibraryMessageView"];

/** One message of the library: written, seen as somebody would get it, and tried. */
export function MessagePage() {
  const { id = "" } = useParams();
  const query = useQuery({
    ...askOnce(["library-message", id], () => api.GET("/api/library/messages/{id}", { params: { path: { id } } })),
    refetchOnMount: "always",
  });
  useTitle(query.data?.row.name);
  // What is edited starts from what is stored now, never from what was seen the last time.
  if (!query.data || !query.isFetchedAfterMount)
    return <Page title="Message">{query.error ? <Failure error={query.error} /> : <Skeleton rows={6} />}</Page>;
  return <Message key={id} id={id} view={query.data} />;
}

function Message({ id, view }: { id: string; view: View }) {
  const queries = useQueryClient();
  const parts = useMessageParts();
  const path = { id };
  const edit = useEdit(view.content, async (body) => {
    const next = await orProblem(api.PUT("/api/library/messages/{id}", { params: { path }, body }));
    queries.setQueryData(["library-message", id], next);
    return next.content;
  });
  const { now } = edit;
  return (
    <Page
      title={now.name || "A message without a name"}
      back={
        <Link to="/library" className="underline">
          Library
        </Link>
      }
    >
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
          <MessagePreview message={now.message} />
          <Uses row={view.row} />
          <Acts id={id} isDirty={edit.isDirty} />
        </div>
      </div>
    </Page>
  );
}

function Uses({ row }: { row: Schemas["LibraryRow"] }) {
  return (
    <section aria-label="Where it is used" className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="mb-2 text-section">Where it is used</h2>
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
  const notice = useNotice();
  const sendKey = useSendKey();
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
      void navigate("/library");
    },
  });
  return (
    <section aria-label="Test or remove it">
      <p className="flex flex-wrap gap-2">
        <Button disabled={test.isPending || isDirty} onClick={() => test.mutate()}>
          {isDirty ? "Save it first, then send yourself a test" : "Send it to me as a test"}
        </Button>
        <AskFirst
          words="Remove from library"
          question="Remove it from the library? Steps that use its words keep them."
          act="Remove it"
          busy={remove.isPending}
          onAct={() => remove.mutate()}
        />
      </p>
      <Failure error={test.error ?? remove.error} />
    </section>
  );
}
