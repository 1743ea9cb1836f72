import createClient from "openapi-fetch";
import { orProblem, type Schemas } from "../../api/problem";
import type { paths } from "../../api/schema";

export type MeetingPageView = Schemas["MeetingPageView"];
export type BookingView = NonNullable<MeetingPageView["booking"]>;
export type BookedView = NonNullable<MeetingPageView["meeting"]>;
export type BookingTable = Schemas["BookingTable"];
export type BookingTime = Schemas["BookingTime"];

const http = createClient<paths>({ credentials: "omit" });

/** The zone of this browser, by its IANA name. */
export const ownZone = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The page as it stood in what was opened; null where its times are not by the clock of this browser. */
export function openedHere(): MeetingPageView | null {
  const data = document.getElementById("opened")?.textContent;
  const view = data ? (JSON.parse(data) as MeetingPageView) : null;
  return view && (view.zone === ownZone || view.meeting) ? view : null;
}

export const showPage = (token: string, zone: string) =>
  orProblem(http.GET("/public/meetings/{token}", { params: { path: { token }, query: { zone } } }));

export const showTimes = (token: string, zone: string) =>
  orProblem(http.GET("/public/meetings/{token}/times", { params: { path: { token }, query: { zone } } }));

export const showZones = () => orProblem(http.GET("/public/zones"));

export const book = (token: string, body: Schemas["BookingRequest"], headers: Record<string, string>) =>
  orProblem(http.POST("/public/meetings/{token}/book", { params: { path: { token } }, body, headers }));

export const move = (token: string, body: Schemas["MoveRequest"], headers: Record<string, string>) =>
  orProblem(http.POST("/public/meetings/{token}/move", { params: { path: { token } }, body, headers }));

export const cancel = (token: string, body: Schemas["CancelRequest"], headers: Record<string, string>) =>
  orProblem(http.POST("/public/meetings/{token}/cancel", { params: { path: { token } }, body, headers }));
