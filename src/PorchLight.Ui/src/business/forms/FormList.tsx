import { useMutation } from "@tanstack/react-query";
import { Link } from "react-router";
import { api } from "../../api/client";
import { orProblem, type Schemas } from "../../api/problem";
import { Button, buttonLook } from "../../kit/Button";
import { LightMark } from "../../kit/marks";
import { useNotice } from "../../kit/Notice";
import { Page } from "../../kit/Page";
import { RowItem } from "../../kit/Rows";
import { Failure } from "../../kit/states";
import { useRowArrows } from "../../kit/useRowArrows";
import { useList } from "../lists/list";
import { ListBody, SaveList } from "../lists/ListBody";
import { say } from "../shell/say";
import { useTitle } from "../shell/useTitle";
import { FormMenu } from "./FormMenu";

type Row = Schemas["FormRow"];

/** The forms as a list one works in. */
export function FormList() {
  useTitle("Forms");
  useRowArrows();
  const notice = useNotice();
  const list = useList("/api/forms", "/forms");
  const lights = useMutation({
    mutationFn: (body: Schemas["Lights"]) => orProblem(api.PUT("/api/forms/lights", { body })),
  });
  const archive = useMutation({
    mutationFn: (body: Schemas["Archive"]) => orProblem(api.PUT("/api/forms/archive", { body })),
    onSuccess: (_, body) => {
      list.setChosen(new Set());
      notice({
        words: body.archived ? "Put away, with the light off." : "Back among your forms, with the light off.",
        undo: () => archive.mutateAsync({ ...body, archived: !body.archived }),
      });
    },
  });
  return (
    <Page
      title="Forms"
      actions={
        <>
          <Link to="/files" className={buttonLook("quiet")}>
            Files and lists
          </Link>
          <SaveList list={list} />
          <Link to="/forms/new" className={buttonLook("main")}>
            A new form
          </Link>
        </>
      }
    >
      <Failure error={lights.error ?? archive.error} />
      <ListBody
        list={list}
        one="form"
        many="forms"
        search="Find by title or service"
        all="All forms"
        empty="There is no form yet. Make the first one: from a ready one it takes a minute."
        withSeveral={(forms) =>
          list.asked.archived ? (
            <Button onClick={() => archive.mutate({ forms, archived: false })}>Bring back</Button>
          ) : (
            <>
              <Button onClick={() => lights.mutate({ forms, on: true })}>Turn the light on</Button>
              <Button onClick={() => lights.mutate({ forms, on: false })}>Turn the light off</Button>
              <Button onClick={() => archive.mutate({ forms, archived: true })}>Put away</Button>
            </>
          )
        }
      >
        {(row, choose) => (
          <RowItem className="flex items-center gap-1 pr-4 hover:bg-mist/70">
            {choose(row.title)}
            <FormLink row={row} />
            <FormMenu row={row} onArchive={() => archive.mutate({ forms: [row.id], archived: !row.archived })} />
          </RowItem>
        )}
      </ListBody>
    </Page>
  );
}

const FormLink = ({ row }: { row: Row }) => (
  <Link
    data-row
    to={`/forms/${row.id}`}
    className="flex min-h-11 min-w-0 flex-1 flex-wrap items-center gap-x-3 gap-y-1 py-2 -outline-offset-2 sm:gap-x-5"
  >
    <span className="inline-flex items-center gap-2 sm:w-32">
      <LightMark lit={row.shines} /> {row.shines ? "Light is on" : "Light is off"}
    </span>
    <strong className="order-first w-full sm:order-none sm:w-auto sm:min-w-48 sm:flex-1">
      {row.title || "A form without a title"}
    </strong>
    <span className="empty:hidden sm:w-40 sm:empty:block">{row.service}</span>
    <span className="sm:w-24 tabular-nums">{say(row.answers, "answer")}</span>
    <span className="text-slate sm:w-40" title={row.lastAnswerExactly ?? undefined}>
      {row.lastAnswer ? `last ${row.lastAnswer}` : "none yet"}
    </span>
    <span className="text-slate sm:w-36">
      {row.version === 0 ? "not published yet" : `version ${row.version}`}
      {row.version > 0 && row.unpublishedChanges && ", changed since"}
    </span>
  </Link>
);
