/** Both workshops of the house: beginning one's own, changing between them, and the demo as it was on the first day. */
import { FIRST_STEPS } from "#core/settings/firstSteps";
import { WORKSHOPS, type WorkshopKind } from "#core/workshop";
import { readSettings } from "#db/settings/settings";
import { useState, type ReactNode } from "react";
import { Link, redirectDocument, useFetcher } from "react-router";
import { object } from "yup";
import { serving } from "../server/workshop.server.ts";
import { oneOf } from "../forms/fields.ts";
import { withRefusals, readSheet, refuseSheet, type Reply } from "../forms/sheet.server.ts";
import { Button, Problem } from "../ui/fields/form.tsx";
import { Caution, Heading, Sheet } from "../ui/sheet/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { BooksIn } from "./booksIn.tsx";
import type { Route } from "./+types/workshops";

export const meta: Route.MetaFunction = () => [{ title: "Workshops · Zelbin" }];

export async function loader() {
  const house = serving().house;
  const own = await house?.of("own");
  return { own: own ? (await readSettings(own)).workshop : null, booksIn: house?.where ?? null };
}

const schema = object({ intent: oneOf(["begin", "reset"]) });

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const house = serving().house;
  if (!house) return refuseSheet([{ field: "", say: "Workshops are made and changed where Zelbin was started with npm start." }]);
  const { intent } = sheet.value;
  return withRefusals(async () => {
    await (intent === "begin" ? house.begin() : house.resetDemo());
    // The other workshop's pages have another base path: the whole document goes there.
    const to = intent === "begin" ? `${WORKSHOPS.own.home}${FIRST_STEPS.name.to}` : WORKSHOPS.demo.home;
    return redirectDocument(new URL(to, request.url).href);
  });
}

function One({ kind, title, children }: { kind: WorkshopKind; title: string; children: ReactNode }) {
  const { kind: open } = useWorkshop();
  return (
    <Sheet label={WORKSHOPS[kind].about}>
      <p className="mb-1 flex items-center gap-3">
        <span className="workshop-tag" data-kind={kind}>
          {WORKSHOPS[kind].say}
        </span>
        {open === kind && <span className="font-semibold text-sage">Open now</span>}
      </p>
      <h2 className="text-title">{title}</h2>
      <div className="mt-1 space-y-3">{children}</div>
    </Sheet>
  );
}

export default function WorkshopsPage({ loaderData: { own, booksIn } }: Route.ComponentProps) {
  const fetcher = useFetcher<Reply | null>();
  const { kind, name } = useWorkshop();
  const [asking, ask] = useState(false);
  const busy = fetcher.state !== "idle";
  const send = (intent: string) => void fetcher.submit({ intent }, { method: "post", encType: "application/json" });
  const problem = fetcher.data?.problems[0]?.say;
  const go = (to: WorkshopKind, say: string) =>
    kind === to ? null : (
      <a href={WORKSHOPS[to].home} className="act">
        {say}
      </a>
    );
  return (
    <div className="max-w-4xl">
      <Heading title="Workshops" about="Two sets of books, kept apart. The top of every screen says which one is open." />
      <Problem say={problem} />
      <div className="grid gap-5 md:grid-cols-2">
        <One kind="own" title={own ?? "Your own workshop"}>
          {own === null ? (
            <>
              <p>Empty, for what you really buy, make and sell. A few small steps lead in; each can be skipped.</p>
              <div className="flex flex-wrap gap-2">
                <Button main disabled={busy} onClick={() => send("begin")}>
                  Begin your own
                </Button>
                <Link to="/backups" className="act">
                  Open an archive
                </Link>
              </div>
              <p className="text-small text-pine-soft">An archive is a backup of your books, from this computer or another one.</p>
            </>
          ) : (
            <>
              <p>What you buy, make and sell.</p>
              {booksIn && (
                <p className="text-pine-soft">
                  Kept in <BooksIn where={booksIn} />.
                </p>
              )}
              <div className="flex flex-wrap gap-2">
                {go("own", "Go to your own")}
                <Link to="/backups" className="act">
                  Backups
                </Link>
              </div>
            </>
          )}
        </One>
        <One kind="demo" title={kind === "demo" ? name : "The demo"}>
          <p>An invented workshop with a year behind it, to try things on. Nothing done here touches your own.</p>
          <div className="flex flex-wrap gap-2">
            {go("demo", "Go to the demo")}
            {!asking && (
              <Button disabled={busy} onClick={() => ask(true)}>
                Reset the demo
              </Button>
            )}
          </div>
          {asking && (
            <div className="space-y-2">
              <Caution>Everything that was done in the demo goes; it is then as on its first day. Your own isn't touched.</Caution>
              <div className="flex flex-wrap gap-2">
                <Button disabled={busy} onClick={() => send("reset")}>
                  {busy ? "Resetting …" : "Yes, reset it"}
                </Button>
                <Button disabled={busy} onClick={() => ask(false)}>
                  Leave it
                </Button>
              </div>
            </div>
          )}
        </One>
      </div>
    </div>
  );
}
