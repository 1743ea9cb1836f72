import { useCallback, useEffect, useRef, useState } from "react";
import { useQueryClient } from "@tanstack/react-query";
import { Link, Outlet, useNavigate } from "react-router";
import { NoticeBoard } from "../../kit/Notice";
import { Failure, Skeleton } from "../../kit/states";
import { fetchSession, onSignedOut, type Session } from "../../api/client";
import { FirstRun } from "../identity/FirstRun";
import { SignInAgain, SignInPage } from "../identity/SignIn";
import { FailedQueries } from "./FailedQueries";
import { TopBar } from "./TopBar";
import { LeaveGuard } from "../saving/LeaveGuard";
import { SessionContext } from "../shell/session";
import { useChanges } from "../../api/useChanges";

/** The frame around every screen of the business, behind its sign-in. */
export function AppShell() {
  const queries = useQueryClient();
  const navigate = useNavigate();
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
  useChanges(session?.name != null);

  const backAgain = useCallback((next: Session) => {
    setSession(next);
    setRanOut(false);
    waiting.current.splice(0).forEach((goOn) => goOn());
  }, []);
  const refresh = useCallback(() => fetchSession().then(setSession), []);
  const signedOut = useCallback(() => {
    queries.clear();
    fetchSession().then(setSession, setFailure);
  }, [queries]);

  if (failure) return <Failure error={failure} />;
  if (!session) return <Skeleton />;
  if (session.business === null)
    return <FirstRun onDone={() => refresh().then(() => navigate("/forms/new"), setFailure)} />;
  if (session.name === null) return <SignInPage business={session.business} onSignedIn={setSession} />;
  return (
    <SessionContext value={{ ...session, refresh }}>
      <div className="flex h-dvh flex-col">
        <a
          href="#content"
          className="absolute -top-20 left-3 z-40 rounded-soft bg-card px-3 py-2 text-ink underline shadow-panel focus:top-2"
        >
          Skip to the content
        </a>
        <TopBar onSignedOut={signedOut} />
        {session.practiceMail && !session.isDemo && (
          <p className="border-b border-line bg-glow px-6 py-2 text-center">
            Mail stays in the practice mailbox: nobody you write to gets it.{" "}
            {session.role === "owner" ? (
              <Link to="/settings/mail" className="underline">
                Connect your mail
              </Link>
            ) : (
              "The owner can connect your mail in Settings."
            )}
          </p>
        )}
        <FailedQueries />
        <div id="content" tabIndex={-1} className="relative min-h-0 flex-1 outline-none">
          <NoticeBoard>
            <Outlet />
          </NoticeBoard>
        </div>
        <LeaveGuard />
        {ranOut && <SignInAgain onSignedIn={backAgain} />}
      </div>
    </SessionContext>
  );
}
