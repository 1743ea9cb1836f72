import { useQuery } from "@tanstack/react-query";
import { orProblem } from "../../api/problem";
import { api } from "../client";

/** The files, pictures, people and kept messages that a message can be made of. */
export function useMessageParts() {
  return useQuery({
    queryKey: ["message-parts"],
    queryFn: () => orProblem(api.GET("/api/library/messages/parts")),
  }).data;
}
