import { useParams, useSearchParams } from "react-router";
import { Button } from "../../kit/Button";
import { ListAndPanel } from "../../kit/ListAndPanel";
import { PageHead, pageLook } from "../../kit/Page";
import { Failure } from "../../kit/states";
import { useProjectParts } from "../clientParts/useProjectParts";
import { useList } from "../lists/list";
import { ListBody, SaveList } from "../lists/ListBody";
import { useTitle } from "../shell/useTitle";
import { InquiryRow } from "./InquiryRow";
import { UnfinishedForms } from "./UnfinishedForms";
import { MoveStage } from "./MoveStage";
import { StageBoard } from "./StageBoard";
import { asideReasons, useSetAside } from "./useSetAside";
import { WriteDown } from "./WriteDown";

const withBoard = (on: boolean) => (before: URLSearchParams) => {
  if (on) before.set("board", "");
  else before.delete("board");
  return before;
};

/** The inquiries as a list one works in, grouped by what they need. */
export function InquiryList() {
  const { id } = useParams();
  const [search, setSearch] = useSearchParams();
  const isBoard = search.has("board");
  useTitle(id ? null : "Inquiries");
  const list = useList("/api/inquiries", "/inquiries");
  const parts = useProjectParts();
  const isByNeed = (list.asked.order ?? "need") === "need";
  return (
    <ListAndPanel
      home={list.home}
      rows={list.rows.map((row) => `/inquiries/${row.id}`)}
      open={id ? `/inquiries/${id}` : null}
    >
      <div className={`${pageLook} max-w-none!`}>
        <PageHead
          title="Inquiries"
          isBesidePanel={!!id}
          actions={
            <>
              <SaveList list={list} />
              <Button onClick={() => setSearch(withBoard(!isBoard), { replace: true })}>
                {isBoard ? "Show the list" : "Show the board"}
              </Button>
              <WriteDown />
            </>
          }
        />
        <ListBody
          list={list}
          one="inquiry"
          many="inquiries"
          search="Search in everything they wrote"
          all="All inquiries"
          empty="Nobody has written yet. Turn on the light of a form and share its link; what people send arrives here."
          open={id}
          groupOf={isByNeed ? (row) => row.need : undefined}
          withSeveral={(ids) => <WithSeveral ids={ids} onDone={() => list.setChosen(new Set())} />}
          beside={{ group: "ended", shown: !isBoard && <UnfinishedForms /> }}
          instead={
            isBoard &&
            parts && (
              <StageBoard
                query={list.asked}
                stages={parts.stages}
                lostReasons={parts.lostReasons}
                open={id}
                onShowAll={(stage) => {
                  list.setQuery({ ...list.query, stages: [stage] });
                  setSearch(withBoard(false));
                }}
              />
            )
          }
        >
          {(row, choose) => (
            <InquiryRow row={row} open={row.id === id} before={choose(`${row.name}, ${row.received}`)} isInList />
          )}
        </ListBody>
      </div>
    </ListAndPanel>
  );
}

/** What can be done with several inquiries at once. */
function WithSeveral({ ids, onDone }: { ids: string[]; onDone: () => void }) {
  const parts = useProjectParts();
  const aside = useSetAside(onDone);
  return (
    <>
      {parts && (
        <MoveStage
          ids={ids}
          label="Move to a stage"
          stages={parts.stages}
          lostReasons={parts.lostReasons}
          onMoved={onDone}
        />
      )}
      {asideReasons.map(([reason, words]) => (
        <Button key={reason} weight="quiet" disabled={aside.isPending} onClick={() => aside.mutate({ ids, reason })}>
          {words.replace("It is", ids.length === 1 ? "It is" : "They are")}
        </Button>
      ))}
      <Failure error={aside.error} />
    </>
  );
}
