import { useEffect } from "react";
import { HubConnectionBuilder, LogLevel } from "@microsoft/signalr";
import { useQueryClient } from "@tanstack/react-query";

/** Listens while somebody is signed in; whatever changed, what is on screen is asked for again. */
export function useChanges(listening: boolean): void {
  const queries = useQueryClient();
  useEffect(() => {
    if (!listening) return;
    const news = new HubConnectionBuilder()
      .withUrl("/news")
      .withAutomaticReconnect()
      .configureLogging(LogLevel.None)
      .build();
    const refresh = () => void queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "nod" });
    news.on("changed", refresh);
    news.onreconnected(refresh);
    // Without news the screens still refresh whenever they are looked at again.
    news.start().catch(() => {});
    return () => void news.stop();
  }, [listening, queries]);
}
