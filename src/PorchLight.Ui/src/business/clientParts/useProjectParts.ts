import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { api } from "../../api/client";

/** The stages, the services, and who works here. */
export const useProjectParts = () => useQuery(ask(["project-parts"], () => api.GET("/api/projects/parts"))).data;
