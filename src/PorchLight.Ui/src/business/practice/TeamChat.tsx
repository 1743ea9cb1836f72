import { Page } from "../../kit/Page";
import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link } from "react-router";
import { Empty, Failure, Skeleton } from "../../kit/states";
import { api } from "../../api/client";
import { useTitle } from "../shell/useTitle";

/** The simulated team chat: what follow-throughs post to it. */
export function TeamChat() {
  useTitle("Practice team chat");
  const chat = useQuery(ask(["team-chat"], () => api.GET("/api/practice/chat")));
  return (
    <Page title="Practice team chat">
      <p className="mb-4 text-slate">What your follow-throughs post for the team. It stays in this program.</p>
      <Failure error={chat.error} />
      {chat.isPending && <Skeleton />}
      {chat.data?.length === 0 && (
        <Empty>Nothing has been posted yet. Give a follow-through a step that posts to the team chat.</Empty>
      )}
      <ul className="grid max-w-3xl gap-3">
        {chat.data?.map((post) => (
          <li key={post.id} className="rounded-soft bg-card p-4 shadow-soft">
            <p className="whitespace-pre-wrap wrap-anywhere">{post.text}</p>
            <p className="mt-1 text-slate">
              {post.by}, {post.at}.{" "}
              {post.clientId && (
                <Link to={`/clients/${post.clientId}`} className="underline">
                  Open the client
                </Link>
              )}
            </p>
          </li>
        ))}
      </ul>
    </Page>
  );
}
