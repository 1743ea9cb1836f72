import { orProblem } from "./problem";
import { api } from "./client";

/**
 * Keeps a file as one of the business's own.
 * @param file Its bytes are the body; what they are the program finds out by itself.
 * @param headers The send key under which it is kept once.
 */
export const uploadFile = (file: File, headers: Record<string, string>) =>
  orProblem(
    api.POST("/api/files", {
      params: { query: { name: file.name } },
      body: file as never,
      bodySerializer: (body) => body as BodyInit,
      headers: { ...headers, "Content-Type": "application/octet-stream" },
    }),
  );
