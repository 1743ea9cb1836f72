import { useQuery } from "@tanstack/react-query";
import { ask } from "../../api/ask";
import { Link } from "react-router";
import { buttonLook } from "../../kit/Button";
import { Panel, PanelWaiting } from "../../kit/Panel";
import { api } from "../../api/client";
import { useTitle } from "../shell/useTitle";
import { standingWords } from "./standings";

/** Clients who are perhaps one person, two by two, for somebody to decide. */
export function PerhapsSame() {
  useTitle("Perhaps the same");
  const pairs = useQuery(ask(["perhaps-same"], () => api.GET("/api/clients/perhaps-same")));
  if (!pairs.data) return <PanelWaiting title="Perhaps the same" home="/clients" error={pairs.error} />;
  return (
    <Panel
      title="Perhaps the same"
      home="/clients"
      under={pairs.data.length > 0 ? "Nothing is merged until you have looked." : undefined}
    >
      {pairs.data.length === 0 && <p>No possible duplicates.</p>}
      <ul className="grid gap-3">
        {pairs.data.map(({ one, other, why }) => (
          <li
            key={`${one.id} ${other.id}`}
            className="flex flex-wrap items-center justify-between gap-3 rounded-soft bg-glow p-4"
          >
            <span className="min-w-0">
              <strong>{one.name}</strong> ({standingWords[one.standing].toLowerCase()}, since {one.since}) and{" "}
              <strong>{other.name}</strong> ({standingWords[other.standing].toLowerCase()}, since {other.since}) have{" "}
              {why}.
            </span>
            <Link className={buttonLook("plain")} to={`/clients/${one.id}/beside/${other.id}`}>
              Look at both
            </Link>
          </li>
        ))}
      </ul>
    </Panel>
  );
}
