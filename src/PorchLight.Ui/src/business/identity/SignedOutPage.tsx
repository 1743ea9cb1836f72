import type { ReactNode } from "react";
import { LightMark } from "../../kit/marks";

/** A page before the door: sign-in, a link that lets somebody in, the first run. */
export function SignedOutPage({
  title,
  wide = false,
  children,
}: {
  title: string;
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <div className={`flex min-h-dvh flex-col items-center bg-dusk px-4 ${wide ? "py-10" : "pt-[14vh]"}`}>
      <main className={`w-full rounded-soft bg-card p-7 shadow-panel ${wide ? "max-w-3xl" : "max-w-96"}`}>
        <div className="mb-5 flex items-center gap-2.5">
          <LightMark lit size={34} />
          <h1 className="text-lead">{title}</h1>
        </div>
        {children}
      </main>
    </div>
  );
}
