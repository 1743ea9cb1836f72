import createClient from "openapi-fetch";
import { orProblem, Problem, type Schemas } from "../api/problem";
import type { paths } from "../api/schema";
import type { Desk } from "./desk";

const http = createClient<paths>({ credentials: "omit" });

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

type Filler = Pick<Desk, "token" | "version" | "sendKey">;

export const showForm = (token: string, opened: string, cameFrom: string | null) =>
  orProblem(
    http.GET("/public/forms/{token}", {
      params: { path: { token }, query: { opened, cameFrom: cameFrom ?? undefined } },
    }),
  );

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
