import "altcha/altcha.css";
import "altcha/external";
import "altcha/i18n/en";
import "altcha/types/react";
import Pbkdf2Worker from "altcha/workers/pbkdf2?worker";
import { useEffect, useEffectEvent, useRef } from "react";

$altcha.algorithms.set("PBKDF2/SHA-256", () => new Pbkdf2Worker());

interface Props {
  token: string;
  onProof: (proof: string | null) => void;
}

/** A short check that a browser, and so most likely a person, is at work. Nothing leaves for other sites. */
export default function Proof({ token, onProof }: Props) {
  const widget = useRef<HTMLElement>(null);
  const changed = useEffectEvent((state: string, payload: string | undefined) =>
    onProof(state === "verified" && payload ? payload : null),
  );
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
      <altcha-widget
        ref={widget}
        challenge={`/public/forms/${encodeURIComponent(token)}/challenge`}
        configuration={JSON.stringify({
          auto: "onload",
          hideFooter: true,
          hideLogo: true,
          humanInteractionSignature: false,
        })}
      />
    </div>
  );
}
