import createClient from "openapi-fetch";
import { orProblem, type Schemas } from "./problem";
import type { paths } from "./schema";

export type Session = Schemas["Session"];
export type SignIn = Schemas["SignIn"];

type Listener = (areas: string[]) => void;

let antiforgery = "";
let listener: Listener = () => {};
let askToSignIn: () => Promise<void> = () => Promise.reject(new Error("Nobody can be asked to sign in yet."));

/** Says who asks the person to sign in when a session has run out in the middle of something. */
export function onSignedOut(ask: () => Promise<void>): void {
  askToSignIn = ask;
}

/** Says who hears of the areas in which a request of this window changed something. Gives what ends the listening. */
export function onChanged(heard: Listener): () => void {
  listener = heard;
  return () => {
    listener = () => {};
  };
}

const isSafe = (method: string) => method === "GET" || method === "HEAD";

/**
 * Sends a request. When the session has run out it waits until the person has signed in again and then sends the same
 * request once more, so that nothing typed is lost; a token that another tab has made stale is fetched anew.
 */
async function patientFetch(request: Request): Promise<Response> {
  for (let tries = 0; ; tries++) {
    const attempt = request.clone();
    attempt.headers.set("X-Porch-Light", antiforgery);
    const response = await fetch(attempt);
    if (response.status === 401 && !request.url.endsWith("/api/sign-in")) await askToSignIn();
    else if (response.status === 400 && tries === 0 && !isSafe(request.method)) await fetchSession();
    else {
      const changed = response.headers.get("Changed");
      if (changed !== null) listener(changed.split(" "));
      return response;
    }
  }
}

export const api = createClient<paths>({ fetch: patientFetch });

/** Who is signed in; also fetches the antiforgery token that goes with it. */
export async function fetchSession(): Promise<Session> {
  const response = await fetch("/api/session");
  if (!response.ok) throw new Error("The program does not answer.");
  const session = (await response.json()) as Session;
  antiforgery = session.antiforgery;
  return session;
}

export async function signIn(body: SignIn): Promise<Session> {
  await orProblem(api.POST("/api/sign-in", { body }));
  return fetchSession();
}

export async function signOut(): Promise<void> {
  await orProblem(api.POST("/api/sign-out"));
}
