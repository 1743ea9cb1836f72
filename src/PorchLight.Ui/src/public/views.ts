import type { Schemas } from "../api/problem";

export type FormPageView = Schemas["FormPageView"];
export type PublicForm = Schemas["PublicForm"];
export type PublicItem = Schemas["PublicItem"];
export type PublicQuestion = Schemas["PublicQuestion"];
export type Answer = Schemas["Answer"];
export type Answers = Record<string, Answer>;
export type SentView = Schemas["SentView"];
export type EvaluatedPage = Schemas["EvaluatedPage"];
export type ReviewPage = Schemas["ReviewPage"];
export type FileRef = Schemas["FileRef"];
export type FoundLine = Schemas["FoundLine"];
export type UnfinishedFormView = Schemas["UnfinishedFormView"];
export type UnfinishedFormLink = Schemas["UnfinishedFormLink"];
