import createClient from "openapi-fetch";
import { orProblem, type Schemas } from "../api/problem";
import type { paths } from "../api/schema";

const http = createClient<paths>({ credentials: "omit" });

export type PublicForm = Schemas["PublicForm"];
export type PublicQuestion = Schemas["PublicQuestion"];
export type Answer = Schemas["Answer"];
export type Answers = Record<string, Answer>;
export type SentView = Schemas["SentView"];
export type FillingStep = Schemas["FillingStep"];

export const showForm = (token: string) =>
  orProblem(http.GET("/public/forms/{token}", { params: { path: { token } } }));

export const evaluate = (token: string, body: Schemas["Filling"], signal?: AbortSignal) =>
  orProblem(http.POST("/public/forms/{token}/evaluate", { params: { path: { token } }, body, signal }));

export const send = (token: string, body: Schemas["Sending"]) =>
  orProblem(http.POST("/public/forms/{token}/send", { params: { path: { token } }, body }));

export const askForCall = (token: string) =>
  orProblem(http.POST("/public/receipts/{token}/call", { params: { path: { token } } }));
