import createClient from "openapi-fetch";
import { orProblem, Problem, type Schemas } from "../api/problem";
import type { paths } from "../api/schema";
import type { QuestionSurroundings } from "./questionContext";
import { passOf } from "./localDraft";
import type { FormPageView, FileRef } from "./views";
import { previewTicket, writeDownTicket } from "./embedding";

const http = createClient<paths>({ credentials: "omit" });

// Where a private form opens with a code, the browser in which it was typed shows so with every request.
http.use({
  onRequest({ request }) {
    if (previewTicket) request.headers.set("Preview-Ticket", previewTicket);
    if (writeDownTicket) request.headers.set("Write-Down-Ticket", writeDownTicket);
    const pass = passOf(tokenOf(request.url));
    if (pass) request.headers.set("Form-Pass", pass);
    return request;
  },
});
const tokenOf = (address: string) => /\/public\/forms\/([^/?]+)/.exec(address)?.[1] ?? "";

type Filler = Pick<QuestionSurroundings, "token" | "version" | "sendKey">;

export const showForm = (token: string, opened: string, cameFrom: string | null, later: string | null) =>
  orProblem(
    http.GET("/public/forms/{token}", {
      params: { path: { token }, query: { opened, cameFrom: cameFrom ?? undefined, later: later ?? undefined } },
    }),
  );

/** Says that somebody has opened the form by their personal link. */
export const noteOpened = (token: string) =>
  orProblem(http.POST("/public/forms/{token}/opened", { params: { path: { token } } }));

/** The form as it stood in the page that was opened; null when it has to be asked for, as after a code was typed. */
export function openedHere(token: string): FormPageView | null {
  const data = document.getElementById("opened")?.textContent;
  return data && !previewTicket && !writeDownTicket && !passOf(token) ? (JSON.parse(data) as FormPageView) : null;
}

export const subscribeToReopening = (token: string, email: string) =>
  orProblem(http.POST("/public/forms/{token}/reopening", { params: { path: { token } }, body: { email } }));

export const sendCode = (token: string) =>
  orProblem(http.POST("/public/forms/{token}/code", { params: { path: { token } } }));

export const checkCode = (token: string, code: string) =>
  orProblem(http.POST("/public/forms/{token}/code/check", { params: { path: { token } }, body: { code } }));

export const keepForLater = (token: string, body: Schemas["DraftAnswers"]) =>
  orProblem(http.PUT("/public/forms/{token}/unfinished-form", { params: { path: { token } }, body }));

export const mailForLater = (token: string, body: Schemas["MailDraftLinkRequest"]) =>
  orProblem(http.POST("/public/forms/{token}/unfinished-form/mail", { params: { path: { token } }, body }));

export const showReceipt = (token: string) =>
  orProblem(http.GET("/public/receipts/{token}", { params: { path: { token } } }));

export const evaluate = (token: string, body: Schemas["EvaluateRequest"], signal?: AbortSignal) =>
  orProblem(http.POST("/public/forms/{token}/evaluate", { params: { path: { token } }, body, signal }));

export const send = (token: string, body: Schemas["SubmissionRequest"]) =>
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
    if (pass) request.setRequestHeader("Form-Pass", pass);
    if (previewTicket) request.setRequestHeader("Preview-Ticket", previewTicket);
    if (writeDownTicket) request.setRequestHeader("Write-Down-Ticket", writeDownTicket);
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
