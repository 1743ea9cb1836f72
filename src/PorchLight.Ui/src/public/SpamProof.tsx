import "altcha/external";
import "altcha/i18n/en";
import "altcha/types/react";
import Pbkdf2Worker from "altcha/workers/pbkdf2?worker";
import { useEffect, useEffectEvent, useRef, useState } from "react";
import { LightMark } from "../kit/marks";
import { quietButton } from "./controls/control";

$altcha.algorithms.set("PBKDF2/SHA-256", () => new Pbkdf2Worker());

interface Props {
  token: string;
  onProof: (proof: string | null, over: boolean) => void;
}

/** A short check that a browser, and so most likely a person, is at work. Nothing leaves for other sites. */
export default function SpamProof({ token, onProof }: Props) {
  const widget = useRef<HTMLElement & { verify: () => Promise<unknown> }>(null);
  const [state, setState] = useState("verifying");
  const changed = useEffectEvent((now: string, payload: string | undefined) => {
    setState(now);
    onProof(now === "verified" && payload ? payload : null, now !== "verifying" && now !== "unverified");
  });
  useEffect(() => {
    const own = widget.current;
    const listen = (event: Event) => {
      const { state, payload } = (event as CustomEvent<{ state: string; payload?: string }>).detail;
      changed(state, payload);
    };
    own?.addEventListener("statechange", listen);
    return () => own?.removeEventListener("statechange", listen);
  }, []);
  return (
    <div className="mb-5">
      <p role="status" className="flex flex-wrap items-center gap-2 border-l-4 border-edge pl-3">
        <LightMark lit={state === "verified"} />
        {state === "verified"
          ? "Checked: you can send."
          : state === "error" || state === "expired" || state === "code"
            ? "The short check of your browser did not work."
            : "A short check of your browser, against spam. It takes a second or two …"}
        {(state === "error" || state === "expired") && (
          <button type="button" className={quietButton} onClick={() => void widget.current?.verify()}>
            Try it again
          </button>
        )}
      </p>
      <div hidden>
        <altcha-widget
          ref={widget}
          challenge={`/public/forms/${encodeURIComponent(token)}/challenge`}
          configuration={JSON.stringify({
            auto: "onload",
            display: "invisible",
            humanInteractionSignature: false,
          })}
        />
      </div>
    </div>
  );
}
