import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { orProblem } from "../../api/problem";
import { ListAndPanel, ListTitle } from "../../kit/ListAndPanel";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../client";
import { useTitle } from "../shell/useTitle";
import { InquiryRows } from "./InquiryRows";

export function InquiryList() {
  const { id } = useParams();
  useTitle(id ? undefined : "Inquiries");
  const list = useQuery({ queryKey: ["inquiries"], queryFn: () => orProblem(api.GET("/api/inquiries")) });
  const rows = list.data ?? [];
  const owed = rows.filter((row) => row.group !== null);
  const rest = rows.filter((row) => row.group === null);
  return (
    <ListAndPanel
      home="/inquiries"
      rows={[...owed, ...rest].map((row) => `/inquiries/${row.id}`)}
      open={id ? `/inquiries/${id}` : null}
    >
      <div className="mx-auto max-w-6xl p-6">
        <ListTitle open={!!id}>Inquiries</ListTitle>
        <Failure error={list.error} />
        {list.isPending && <Skeleton />}
        {list.data?.length === 0 && (
          <Empty>
            Nobody has written yet. Turn on the light of a form and share its link; what people send arrives here.
          </Empty>
        )}
        {owed.length > 0 && (
          <Group title="Waiting for you">
            <InquiryRows rows={owed} open={id} />
          </Group>
        )}
        {rest.length > 0 && (
          <Group title="Answered or closed">
            <InquiryRows rows={rest} open={id} />
          </Group>
        )}
      </div>
    </ListAndPanel>
  );
}

function Group({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section className="mb-6">
      <h2 className="mb-2 text-[1.07rem]">{title}</h2>
      {children}
    </section>
  );
}
