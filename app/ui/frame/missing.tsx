/** An address that leads nowhere. */
import { Link } from "react-router";
import { Empty } from "../sheet/sheet.tsx";

export function loader() {
  throw new Response("Not found", { status: 404 });
}

export default function Missing() {
  return null;
}

export function ErrorBoundary() {
  return (
    <Empty
      title="There is nothing here"
      act={
        <Link className="act act-main" to="/">
          Back to Today
        </Link>
      }
    >
      What you were looking for isn't on record, or its address was mistyped.
    </Empty>
  );
}
