import { useState, type FormEvent } from "react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { findingsOf, orProblem } from "../../api/problem";
import { Button } from "../../kit/Button";
import { TextBox } from "../../kit/fields";
import { Failure } from "../../kit/states";
import { api } from "../client";
import { useTitle } from "../shell/useTitle";
import { useSendKey } from "../useSendKey";

/** A new form from the ready one: its screening is built around where the work starts in price. */
export function NewForm() {
  useTitle("A new form");
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [title, setTitle] = useState("");
  const [price, setPrice] = useState("");
  const sendKey = useSendKey();
  const make = useMutation({
    mutationFn: () => {
      const body = { title, startingPrice: Number(price) };
      return orProblem(api.POST("/api/forms", { body, headers: sendKey.for(body) }));
    },
    onSuccess: ({ id }) => {
      void queries.invalidateQueries({ queryKey: ["forms"] });
      void navigate(`/forms/${id}`);
    },
  });
  const findings = findingsOf(make.error);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!make.isPending && !make.isSuccess) make.mutate();
  };
  return (
    <main className="mx-auto h-full max-w-6xl overflow-y-auto p-6 sm:px-10">
      <h1 className="mb-2 text-2xl">A new form</h1>
      <p className="mb-4 max-w-2xl">
        It comes ready: who they are, what they wish for, when, and what they have set aside; a screening that sorts
        them into Come in, Talk first and Not now; a thank-you that goes by itself and two follow-ups that wait for your
        nod. You read it through, put it in your words and publish it.
      </p>
      <form onSubmit={submit} noValidate className="grid max-w-xl gap-4 rounded-soft bg-card p-6 shadow-soft">
        <TextBox
          label="Title"
          help="What people read first, like “A portrait of your house”."
          value={title}
          error={findings.get("title")}
          onChange={(e) => setTitle(e.target.value)}
        />
        <TextBox
          label="Your work starts at"
          help="In your currency. The answers to the budget question, and their points, are built around it."
          type="number"
          min={1}
          step="any"
          value={price}
          error={findings.get("startingPrice")}
          onChange={(e) => setPrice(e.target.value)}
        />
        {findings.size === 0 && <Failure error={make.error} />}
        <Button weight="main" type="submit" disabled={make.isPending || make.isSuccess} className="justify-self-start">
          Make the form
        </Button>
      </form>
    </main>
  );
}
