/** A page with nothing on it: what the benchmark measures every station against. */
import { Link } from "react-router";

export default function EmptyPage() {
  return (
    <main className="p-6">
      <Link to="/">Back to Today</Link>
    </main>
  );
}
