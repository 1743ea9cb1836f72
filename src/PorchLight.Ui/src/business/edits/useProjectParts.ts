import { useQuery } from "@tanstack/react-query";
import { orProblem } from "../../api/problem";
import { api } from "../client";

/** The stages, the services, and who works here. */
export const useProjectParts = () =>
  useQuery({ queryKey: ["project-parts"], queryFn: () => orProblem(api.GET("/api/projects/parts")) }).data;
