import { useCallback, useEffect, useRef, useState } from "react";
import { useQueryClient } from "@tanstack/react-query";
import { Outlet } from "react-router";
import { NoticeBoard } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { fetchSession, onSignedOut, type Session } from "../client";
import { SignInAgain, SignInPage } from "../identity/SignIn";
import { Lintel } from "./Lintel";
import { useNews } from "./useNews";

/** The frame around every screen of the business, behind its sign-in. */
export function House() {
  const queries = useQueryClient();
  const [session, setSession] = useState<Session | null>(null);
  const [failure, setFailure] = useState<unknown>(null);
  const [ranOut, setRanOut] = useState(false);
  const waiting = useRef<(() => void)[]>([]);

  useEffect(() => {
    fetchSession().then(setSession, setFailure);
    onSignedOut(
      () =>
        new Promise((resolve) => {
          waiting.current.push(resolve);
          setRanOut(true);
        }),
    );
  }, []);
  useNews(session?.name != null);

  const backAgain = useCallback((next: Session) => {
    setSession(next);
    setRanOut(false);
    waiting.current.splice(0).forEach((goOn) => goOn());
  }, []);
  const signedOut = useCallback(() => {
    queries.clear();
    fetchSession().then(setSession, setFailure);
  }, [queries]);

  if (failure) return <Failure error={failure} />;
  if (!session) return <Skeleton />;
  if (session.name === null) return <SignInPage business={session.business} onSignedIn={setSession} />;
  return (
    <div className="flex h-dvh flex-col">
      <Lintel session={session} onSignedOut={signedOut} />
      <div className="relative min-h-0 flex-1">
        <NoticeBoard>
          <Outlet />
        </NoticeBoard>
      </div>
      {ranOut && <SignInAgain onSignedIn={backAgain} />}
    </div>
  );
}
