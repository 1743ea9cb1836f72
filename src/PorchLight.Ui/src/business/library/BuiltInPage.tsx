import { Page } from "../../kit/Page";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { askOnce } from "../../api/ask";
import { Link, useParams, useSearchParams } from "react-router";
import { orProblem, type Schemas } from "../../api/problem";
import { Button } from "../../kit/Button";
import { useNotice } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { known, MessageFields } from "../messages/MessageFields";
import { SavedForm } from "../saving/SavedForm";
import { useEdit } from "../saving/useEdit";
import { useTitle } from "../shell/useTitle";
import { useSendKey } from "../../api/useSendKey";
import { MessagePreview } from "./MessagePreview";

type View = Schemas["BuiltInView"];
type Kind = Schemas["BuiltInMessage"];

/** A message that the program sends by itself, for all forms or for one: as it comes, rewritten, or switched off. */
export function BuiltInPage() {
  const { kind = "" } = useParams();
  const form = useSearchParams()[0].get("form");
  const params = { path: { kind: kind as Kind }, query: form ? { form } : {} };
  const query = useQuery({
    ...askOnce(["built-in", kind, form], () => api.GET("/api/library/built-in/{kind}", { params })),
    refetchOnMount: "always",
  });
  useTitle(query.data?.name);
  // What is edited starts from what is stored now, never from what was seen the last time.
  if (!query.data || !query.isFetchedAfterMount)
    return <Page title="Message">{query.error ? <Failure error={query.error} /> : <Skeleton rows={6} />}</Page>;
  return <BuiltIn key={`${kind} ${form}`} form={form} view={query.data} />;
}

function BuiltIn({ form, view }: { form: string | null; view: View }) {
  const queries = useQueryClient();
  const params = { path: { kind: view.kind }, query: form ? { form } : {} };
  const edit = useEdit(view.content, async (body) => {
    const next = await orProblem(api.PUT("/api/library/built-in/{kind}", { params, body }));
    queries.setQueryData(["built-in", view.kind, form], next);
    return next.content;
  });
  const { now } = edit;
  const choices = [
    ...view.values.map(({ name, words }) => ({ name, words })),
    ...known.filter(({ name }) => ["business", "owner", "signature"].includes(name)),
  ];
  const shown = now.wording === "own" ? now.message : view.standard;
  return (
    <Page
      title={view.name}
      back={
        form ? (
          <Link to={`/forms/${form}/settings`} className="underline">
            Settings of “{view.formTitle}”
          </Link>
        ) : (
          <Link to="/library" className="underline">
            Library
          </Link>
        )
      }
    >
      <p className="mb-4 max-w-3xl text-slate">
        {view.when} {view.formTitle && `Here only for “${view.formTitle}”.`}
      </p>
      <div className="grid items-start gap-6 lg:grid-cols-2">
        <SavedForm edit={edit} nameOf={(place) => (place === "wording" ? "Which words" : "Message")}>
          <div className="grid gap-4">
            <fieldset className="grid gap-2">
              <legend className="mb-1 font-semibold">What is sent</legend>
              <Choice
                label={form ? "The wording in the library" : "Standard wording"}
                checked={now.wording === "standard"}
                onChoose={() => edit.change({ wording: "standard" })}
              />
              <Choice
                label={form ? "Words for this form" : "Your own words"}
                checked={now.wording === "own"}
                onChoose={() => edit.change({ wording: "own" })}
              />
              {view.withoutIt ? (
                <Choice
                  label="Nothing"
                  help={view.withoutIt}
                  checked={now.wording === "off"}
                  onChoose={() => edit.change({ wording: "off" })}
                />
              ) : (
                <p className="text-slate">{view.staysOn}</p>
              )}
            </fieldset>
            {now.wording === "own" && (
              <MessageFields
                message={now.message}
                choices={choices}
                isByItself
                onChange={(message) => edit.change({ message })}
              />
            )}
            {edit.findings.get("message") && (
              <p role="alert" className="border-l-4 border-brick pl-2 font-semibold text-brick">
                {edit.findings.get("message")}
              </p>
            )}
          </div>
        </SavedForm>
        <div className="grid gap-6">
          {now.wording === "off" || !shown ? (
            <p className="rounded-soft bg-card p-6 shadow-soft">Nothing is sent.</p>
          ) : (
            <MessagePreview message={shown} builtIn={view.kind} />
          )}
          <Test params={params} isDirty={edit.isDirty} isOff={now.wording === "off" || !shown} />
        </div>
      </div>
    </Page>
  );
}

interface ChoiceProps {
  label: string;
  help?: string;
  checked: boolean;
  onChoose: () => void;
}

function Choice({ label, help, checked, onChoose }: ChoiceProps) {
  return (
    <label className="flex items-start gap-2">
      <input
        type="radio"
        name="wording"
        className="mt-1 size-[1.15rem] shrink-0 accent-dusk"
        checked={checked}
        onChange={onChoose}
      />
      <span>
        {label}
        {help && <span className="block text-slate">{help}</span>}
      </span>
    </label>
  );
}

interface TestProps {
  params: { path: { kind: Kind }; query: { form?: string } };
  isDirty: boolean;
  isOff: boolean;
}

function Test({ params, isDirty, isOff }: TestProps) {
  const notice = useNotice();
  const sendKey = useSendKey();
  const test = useMutation({
    mutationFn: () =>
      orProblem(api.POST("/api/library/built-in/{kind}/test", { params, headers: sendKey.for(params.path.kind) })),
    onSuccess: () => {
      sendKey.done();
      notice({ words: "A test went to your own address." });
    },
  });
  if (isOff) return null;
  return (
    <section aria-label="Try it">
      <Button disabled={test.isPending || isDirty} onClick={() => test.mutate()}>
        {isDirty ? "Save it first, then send yourself a test" : "Send it to me as a test"}
      </Button>
      <Failure error={test.error} />
    </section>
  );
}
