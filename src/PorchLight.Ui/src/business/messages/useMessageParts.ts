import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { api } from "../../api/client";

/** The files, pictures, people and kept messages that a message can be made of. */
export function useMessageParts() {
  return useQuery(ask(["message-parts"], () => api.GET("/api/library/messages/parts"))).data;
}
