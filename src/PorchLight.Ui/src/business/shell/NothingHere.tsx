import { Link } from "react-router";
import { useTitle } from "./useTitle";

export function NothingHere() {
  useTitle("Nothing here");
  return (
    <main className="p-10">
      <h1 className="mb-2 text-lead">There is nothing at this address</h1>
      <p>
        Perhaps the link was cut short.{" "}
        <Link to="/" className="underline">
          Back to today
        </Link>
        .
      </p>
    </main>
  );
}
