import createClient from "openapi-fetch";
import { orProblem, Problem, type Schemas } from "../api/problem";
import type { paths } from "../api/schema";
import type { Desk } from "./desk";
import { passOf } from "./filling";
import { lookTicket } from "./frame";

const http = createClient<paths>({ credentials: "omit" });

// Where a private form opens with a code, the browser in which it was typed shows so with every request.
http.use({
  onRequest({ request }) {
    if (lookTicket) request.headers.set("Porch-Look", lookTicket);
    const pass = passOf(tokenOf(request.url));
    if (pass) request.headers.set("Porch-Pass", pass);
    return request;
  },
});
const tokenOf = (address: string) => /\/public\/forms\/([^/?]+)/.exec(address)?.[1] ?? "";

export type DoorView = Schemas["DoorView"];
export type PublicForm = Schemas["PublicForm"];
export type PublicItem = Schemas["PublicItem"];
export type PublicQuestion = Schemas["PublicQuestion"];
export type Answer = Schemas["Answer"];
export type Answers = Record<string, Answer>;
export type SentView = Schemas["SentView"];
export type FillingStep = Schemas["FillingStep"];
export type ReviewPage = Schemas["ReviewPage"];
export type FileRef = Schemas["FileRef"];
export type FoundLine = Schemas["FoundLine"];

export type KeptView = Schemas["KeptView"];
export type Kept = Schemas["Kept"];

type Filler = Pick<Desk, "token" | "version" | "sendKey">;

export const showDoor = (token: string, opened: string, cameFrom: string | null, later: string | null) =>
  orProblem(
    http.GET("/public/forms/{token}", {
      params: { path: { token }, query: { opened, cameFrom: cameFrom ?? undefined, later: later ?? undefined } },
    }),
  );

export const tellMe = (token: string, email: string) =>
  orProblem(http.POST("/public/forms/{token}/tell-me", { params: { path: { token } }, body: { email } }));

export const sendCode = (token: string) =>
  orProblem(http.POST("/public/forms/{token}/code", { params: { path: { token } } }));

export const checkCode = (token: string, code: string) =>
  orProblem(http.POST("/public/forms/{token}/code/check", { params: { path: { token } }, body: { code } }));

export const keepForLater = (token: string, body: Schemas["KeptAnswers"]) =>
  orProblem(http.PUT("/public/forms/{token}/kept", { params: { path: { token } }, body }));

export const mailForLater = (token: string, body: Schemas["MailWish"]) =>
  orProblem(http.POST("/public/forms/{token}/kept/mail", { params: { path: { token } }, body }));

export const showReceipt = (token: string) =>
  orProblem(http.GET("/public/receipts/{token}", { params: { path: { token } } }));

export const evaluate = (token: string, body: Schemas["Filling"], signal?: AbortSignal) =>
  orProblem(http.POST("/public/forms/{token}/evaluate", { params: { path: { token } }, body, signal }));

export const send = (token: string, body: Schemas["Sending"]) =>
  orProblem(http.POST("/public/forms/{token}/send", { params: { path: { token } }, body }));

export const askForCall = (token: string) =>
  orProblem(http.POST("/public/receipts/{token}/call", { params: { path: { token } } }));

export const lookUp = ({ token, version }: Filler, question: string, typed: string, signal: AbortSignal) =>
  orProblem(
    http.GET("/public/forms/{token}/{version}/look-up", {
      params: { path: { token, version }, query: { question, typed } },
      signal,
    }),
  );

export const takeBack = ({ token, version, sendKey }: Filler, id: string) =>
  orProblem(
    http.DELETE("/public/forms/{token}/{version}/files/{id}", {
      params: { path: { token, version, id }, query: { filling: sendKey } },
    }),
  );

/** Sends a file and tells how much of it is through; fetch cannot. */
export function upload(
  { token, version, sendKey }: Filler,
  question: string,
  file: File,
  onShare: (share: number) => void,
): Promise<FileRef> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    const query = new URLSearchParams({ filling: sendKey, question, name: file.name });
    request.open("POST", `/public/forms/${encodeURIComponent(token)}/${version}/files?${query}`);
    request.setRequestHeader("Content-Type", "application/octet-stream");
    const pass = passOf(token);
    if (pass) request.setRequestHeader("Porch-Pass", pass);
    if (lookTicket) request.setRequestHeader("Porch-Look", lookTicket);
    request.responseType = "json";
    request.upload.onprogress = ({ loaded, total }) => onShare(total ? loaded / total : 0);
    request.onerror = () => reject(new Problem(0, `“${file.name}” did not get through. Please try it again.`));
    request.onload = () => {
      const body = request.response as (FileRef & { detail?: string }) | null;
      if (request.status === 200 && body) resolve(body);
      else
        reject(new Problem(request.status, body?.detail ?? `“${file.name}” did not get through. Please try it again.`));
    };
    request.send(file);
  });
}
