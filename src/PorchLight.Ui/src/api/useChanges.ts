import { useEffect } from "react";
import { HubConnectionBuilder, LogLevel } from "@microsoft/signalr";
import { useQueryClient } from "@tanstack/react-query";
import { askAgain } from "./ask";
import { onChanged } from "./client";

/**
 * Keeps what is on screen true: asks again for what is made of what this window changed, and, while somebody is signed in, of what others
 * did.
 */
export function useChanges(listening: boolean): void {
  const queries = useQueryClient();
  useEffect(() => onChanged((areas) => void askAgain(queries, areas)), [queries]);
  useEffect(() => {
    if (!listening) return;
    const changes = new HubConnectionBuilder()
      .withUrl("/changes")
      .withAutomaticReconnect()
      .configureLogging(LogLevel.None)
      .build();
    changes.on("changed", (areas: string[]) => void askAgain(queries, areas));
    changes.onreconnected(() => void askAgain(queries, null));
    // Without these messages the screens still refresh whenever they are looked at again.
    changes.start().catch(() => {});
    return () => void changes.stop();
  }, [listening, queries]);
}
