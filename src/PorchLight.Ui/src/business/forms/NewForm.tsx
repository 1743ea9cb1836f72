import { Page } from "../../kit/Page";
import { useRef, useState, type FormEvent, type ReactNode } from "react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { useNavigate } from "react-router";
import { findingsOf, orProblem } from "../../api/problem";
import { Button } from "../../kit/Button";
import { SelectBox, TextBox } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../../api/client";
import { say } from "../shell/say";
import { useTitle } from "../shell/useTitle";
import { useSendKey } from "../../api/useSendKey";

const blank = "";

/** A new form: from a blank page, from a ready one, as a copy of one's own, or from a file. */
export function NewForm() {
  useTitle("A new form");
  const [start, setStart] = useState<string | null>(null);
  const ready = useQuery({ ...ask(["ready-forms"], () => api.GET("/api/forms/ready")), staleTime: Infinity });
  const chosen = ready.data?.find((one) => one.key === start);
  return (
    <Page title="A new form">
      <div className="grid items-start gap-6 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <section aria-labelledby="ready-heading">
          <h2 id="ready-heading" className="mb-1 text-section">
            Begin with
          </h2>
          <p className="mb-3 text-slate">
            A ready-made form comes with questions and conditions, screening built around your starting price, send-offs
            and follow-ups. You can change every word.
          </p>
          <Failure error={ready.error} />
          <ul className="grid gap-2 sm:grid-cols-2">
            <Start isChosen={start === blank} name="A blank page" onChoose={() => setStart(blank)}>
              One empty page and one send-off. You type what you want to ask.
            </Start>
            {ready.data?.map((one) => (
              <Start key={one.key} isChosen={start === one.key} name={one.name} onChoose={() => setStart(one.key)}>
                {one.about} {say(one.questions, "question")}.
              </Start>
            ))}
          </ul>
        </section>
        <div className="grid gap-6">
          {start === null ? (
            <p className="rounded-soft bg-card p-6 text-slate shadow-soft">Choose a starting point on the left.</p>
          ) : (
            <MakeForm key={start} start={start} title={chosen?.title ?? ""} />
          )}
          <CopyForm />
          <FormFromFile />
        </div>
      </div>
    </Page>
  );
}

function Start(props: { isChosen: boolean; name: string; onChoose: () => void; children: ReactNode }) {
  return (
    <li>
      <button
        type="button"
        aria-pressed={props.isChosen}
        className={`flex h-full w-full flex-col items-start rounded-soft border-2 bg-card p-3 text-left shadow-soft ${props.isChosen ? "border-dusk" : "border-transparent hover:border-edge"}`}
        onClick={props.onChoose}
      >
        <strong className="block font-head">{props.name}</strong>
        <span className="text-slate">{props.children}</span>
      </button>
    </li>
  );
}

/** Opens what was made. */
function useOpening() {
  const navigate = useNavigate();
  return ({ id }: { id: string }) => {
    void navigate(`/forms/${id}`);
  };
}

function MakeForm({ start, title: proposed }: { start: string; title: string }) {
  const [title, setTitle] = useState(proposed);
  const [price, setPrice] = useState("");
  const sendKey = useSendKey();
  const onSuccess = useOpening();
  const isBlank = start === blank;
  const make = useMutation({
    mutationFn: () => {
      const body = {
        title,
        startingPrice: isBlank ? null : Number(price.replace(",", ".")),
        ready: isBlank ? null : start,
      };
      return orProblem(api.POST("/api/forms", { body, headers: sendKey.for(body) }));
    },
    onSuccess,
  });
  const findings = findingsOf(make.error);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!make.isPending && !make.isSuccess) make.mutate();
  };
  return (
    <form onSubmit={submit} noValidate className="grid gap-4 rounded-soft bg-card p-6 shadow-soft">
      <TextBox
        label="Title"
        help="What people read first, like “A portrait of your house”."
        value={title}
        error={findings.get("title")}
        onChange={(e) => setTitle(e.target.value)}
      />
      {!isBlank && (
        <TextBox
          label="Your work starts at"
          help="In your currency. The answers to the budget question, and their points, are built around it."
          inputMode="decimal"
          value={price}
          error={findings.get("startingPrice")}
          onChange={(e) => setPrice(e.target.value)}
        />
      )}
      {findings.size === 0 && <Failure error={make.error} />}
      <Button weight="main" type="submit" disabled={make.isPending || make.isSuccess} className="justify-self-start">
        Make the form
      </Button>
    </form>
  );
}

function CopyForm() {
  const forms = useQuery(ask(["forms"], () => api.GET("/api/forms")));
  const [original, setOriginal] = useState("");
  const sendKey = useSendKey();
  const onSuccess = useOpening();
  const copy = useMutation({
    mutationFn: (id: string) =>
      orProblem(api.POST("/api/forms/{id}/copies", { params: { path: { id } }, headers: sendKey.for(id) })),
    onSuccess,
  });
  if (!forms.data?.length) return null;
  return (
    <section aria-label="A copy" className="rounded-soft bg-card p-6 shadow-soft">
      <SelectBox
        label="Or a copy of one of yours"
        help="With its screening, settings and follow-ups; its light is off."
        value={original}
        onChange={(e) => setOriginal(e.target.value)}
      >
        <option value="">choose …</option>
        {forms.data.map((form) => (
          <option key={form.id} value={form.id}>
            {form.title}
          </option>
        ))}
      </SelectBox>
      <Failure error={copy.error} />
      <Button
        className="mt-3"
        disabled={!original || copy.isPending || copy.isSuccess}
        onClick={() => copy.mutate(original)}
      >
        Make a copy
      </Button>
    </section>
  );
}

function FormFromFile() {
  const picker = useRef<HTMLInputElement>(null);
  const sendKey = useSendKey();
  const onSuccess = useOpening();
  const take = useMutation({
    mutationFn: async (file: File) => {
      const text = await file.text();
      return orProblem(
        api.POST("/api/forms/imported", {
          // The server reads it as it is, and says where it does not fit.
          body: text as never,
          bodySerializer: (body) => body as unknown as string,
          headers: { ...sendKey.for(text), "Content-Type": "application/json" },
        }),
      );
    },
    onSuccess,
  });
  return (
    <section aria-label="From a file" className="rounded-soft bg-card p-6 shadow-soft">
      <h2 className="font-body text-base font-semibold">Or a form saved as a file</h2>
      <p className="mb-3 text-slate">
        JSON by our{" "}
        <a className="underline" href="/schemas/form.json">
          published schema
        </a>
        .
      </p>
      <input
        ref={picker}
        type="file"
        accept="application/json,.json"
        aria-label="A form as a file"
        className="sr-only"
        tabIndex={-1}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) take.mutate(file);
        }}
      />
      <Button disabled={take.isPending} onClick={() => picker.current?.click()}>
        Choose the file
      </Button>
      <Failure error={take.error} />
      {findingsOf(take.error).size > 0 && (
        <ul className="text-brick">
          {[...findingsOf(take.error)].map(([place, sentence]) => (
            <li key={place}>{sentence}</li>
          ))}
        </ul>
      )}
    </section>
  );
}
