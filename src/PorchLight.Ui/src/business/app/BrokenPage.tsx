import { buttonLook } from "../../kit/Button";
import { sentenceOf } from "../../api/problem";
import { useTitle } from "../shell/useTitle";

/** What stands where a page broke: that it did, what is safe, and the ways on. */
export function BrokenPage() {
  useTitle("This page broke");
  return (
    <main className="mx-auto max-w-xl p-10">
      <h1 className="mb-2 text-title">This page broke</h1>
      <p className="mb-4">{sentenceOf(null)}</p>
      <p className="flex gap-2">
        <a href={location.href} className={buttonLook("main")}>
          Reload the page
        </a>
        <a href="/" className={buttonLook("plain")}>
          Go to Today
        </a>
      </p>
    </main>
  );
}
