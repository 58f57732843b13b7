/**
 * The backups of one's own books: when the last good one was made, where they go, each to be taken along or put back, and an archive from elsewhere
 * to be opened.
 */
import { showBytes } from "#core/words";
import { backupWarning } from "#core/backups/lastBackup";
import { rowsByKind } from "#core/archive/manifest";
import { RETENTION } from "#core/backups/retention";
import { booksNow } from "#db/archive/booksNow";
import { useEffect, useState } from "react";
import { Link, useFetcher, useHref, useNavigate, useRevalidator } from "react-router";
import { object } from "yup";
import { noteText, oneOf } from "../forms/fields.ts";
import { readSheet, refuseSheet, withRefusals, type Reply } from "../forms/sheet.server.ts";
import { Waiting } from "../forms/waiting.tsx";
import { serving } from "../server/workshop.server.ts";
import { useSayDay } from "../ui/figures/amounts.tsx";
import { FileButton } from "../ui/fields/fileButton.tsx";
import { Button, Problem, Text } from "../ui/fields/form.tsx";
import { Table } from "../ui/lists/table.tsx";
import { Caution, Heading, Part, Sheet } from "../ui/sheet/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { compared } from "./compared.ts";
import { Restore } from "./restore.tsx";
import { CameTo, Opened, UnderWay } from "./work.tsx";
import type { Route } from "./+types/backups";

export const meta: Route.MetaFunction = () => [{ title: "Backups · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const { backups, house } = serving();
  if (!backups || !house) return null;
  const asked = new URL(request.url).searchParams;
  const [name, id] = [asked.get("backup"), asked.get("archive")];
  const own = await house.of("own");
  const list = await backups.list();
  const manifest = id !== null ? await backups.takenIn(id) : (list.find((b) => b.name === name)?.manifest ?? null);
  return {
    ...(await backups.state()),
    hasOwn: own !== null,
    list: list.map(({ manifest: m, ...b }) => ({ ...b, acts: m && (rowsByKind(m).get("act") ?? 0), newest: m?.newest[0]?.what ?? null })),
    kept: await house.kept(),
    opened: house.lookedAt()?.asOf ?? null,
    asked: manifest && compared(manifest, own && (await booksNow(own))),
    from: id !== null ? { id } : { name },
  };
}

const schema = object({
  intent: oneOf(["backUp", "stop", "folder", "restore", "look", "endLook", "goBack"]),
  folder: noteText(1000),
  name: noteText(200),
  id: noteText(60),
});

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { backups, house } = serving();
  if (!backups || !house) return refuseSheet([{ field: "", say: "Backups are made where Zelbin was started with npm start." }]);
  const { intent, folder, name, id } = sheet.value;
  return withRefusals(async (): Promise<Reply> => {
    if (intent === "backUp") backups.begin();
    else if (intent === "stop") backups.stop();
    else if (intent === "folder") await backups.choose(folder);
    else if (intent === "goBack") await backups.goBack(name);
    else if (intent === "endLook") await house.endLook();
    else {
      const from = id === "" ? { name } : { id };
      await (intent === "look" ? backups.look(from) : backups.restore(from));
    }
    return { problems: [] };
  });
}

/** How often a page that watches asks how far it is. */
const WATCH_MS = 500;

/** Sends an archive's file as it is; what it becomes is on the page it leads to. */
function OpenArchive({ disabled }: { disabled: boolean }) {
  const to = useHref("/backups/take-in");
  const navigate = useNavigate();
  const [problem, say] = useState<string | null>(null);
  /** What it is waited for by; null while nothing is sent. */
  const [token, set] = useState<string | null>(null);
  const send = async (file: File): Promise<void> => {
    const own = crypto.randomUUID();
    set(own);
    say(null);
    try {
      const answer = await fetch(`${to}?token=${own}`, { method: "POST", headers: { "content-type": "application/zip" }, body: file });
      const said = (await answer.json()) as { id?: string; problems?: Reply["problems"] };
      if (said.id === undefined) say(said.problems?.[0]?.say ?? "That didn't go. Try again.");
      else await navigate(`/backups?archive=${said.id}`);
    } catch {
      say("Zelbin can't be reached, or the file can't be read. Nothing was changed; try again.");
    } finally {
      set(null);
    }
  };
  return (
    <>
      <FileButton accept=".zip,application/zip" disabled={token !== null || disabled} onFile={(file) => void send(file)}>
        {token !== null ? "Reading it through …" : "Open an archive …"}
      </FileButton>
      {token !== null && <Waiting token={token} what="Reading it through, per cent" />}
      <Problem say={problem} />
    </>
  );
}

/** A moment of this machine's clock, in words. @example "Tue 1 Dec, 07:12" */
function useSayMoment(): (moment: string) => string {
  const say = useSayDay();
  const { today } = useWorkshop();
  return (moment) => `${moment.slice(0, 10) === today ? "today" : say(moment.slice(0, 10))}, ${moment.slice(11, 16)}`;
}

export default function BackupsPage({ loaderData }: Route.ComponentProps) {
  if (loaderData === null) return <Heading title="Backups" about="Backups are made where Zelbin was started with npm start." />;
  return <Backups {...loaderData} />;
}

type Data = NonNullable<Route.ComponentProps["loaderData"]>;

function Backups({ folder, byDefault, work, ended, trouble, lookedAt, opened, made, hasOwn, list, kept, asked, from }: Data) {
  const fetcher = useFetcher<Reply | null>();
  const revalidator = useRevalidator();
  const navigate = useNavigate();
  const { today } = useWorkshop();
  const sayMoment = useSayMoment();
  const file = useHref("/backups/file");
  const watching = work !== null;
  useEffect(() => {
    if (!watching) return;
    const timer = setInterval(() => {
      if (document.visibilityState === "visible") void revalidator.revalidate();
    }, WATCH_MS);
    return () => clearInterval(timer);
  }, [watching, revalidator]);
  const send = (what: Record<string, string>) =>
    void fetcher.submit({ folder: "", name: "", id: "", ...what }, { method: "post", action: "/backups", encType: "application/json" });
  const busy = watching || fetcher.state !== "idle";
  const problem = (field: string) => fetcher.data?.problems.find((p) => p.field === field)?.say;
  const warning = hasOwn && !work ? backupWarning({ made, lookedAt, trouble }, today) : null;
  return (
    <div className="max-w-5xl">
      <Heading title="Backups" about="Everything in your own workshop as one file, in formats that other programs read.">
        {hasOwn && (
          <Button main disabled={busy} onClick={() => send({ intent: "backUp" })}>
            Back up now
          </Button>
        )}
        <OpenArchive disabled={watching} />
      </Heading>
      <div className="space-y-5">
        {(work || ended || warning || opened || problem("")) && (
          <Sheet label="How it stands">
            <div className="space-y-3">
              {warning && <Caution>{warning}</Caution>}
              {work && <UnderWay work={work} onStop={() => send({ intent: "stop" })} />}
              {ended && <CameTo ended={ended} />}
              {opened && !work && <Opened asOf={opened} onEnd={() => send({ intent: "endLook" })} />}
              <Problem say={problem("") ?? problem("archive")} />
            </div>
          </Sheet>
        )}
        {asked && !work && (
          <Restore
            of={asked}
            busy={busy}
            onLook={() => {
              send({ intent: "look", name: from.name ?? "", id: from.id ?? "" });
              void navigate("/backups", { replace: true, preventScrollReset: true });
            }}
            onRestore={() => {
              send({ intent: "restore", name: from.name ?? "", id: from.id ?? "" });
              void navigate("/backups", { replace: true, preventScrollReset: true });
            }}
          />
        )}
        {!hasOwn ? (
          <Sheet>
            <p>
              There is no workshop of your own yet. To go on with one from another computer, open its archive here: save it there with{" "}
              <em>Back up now</em> and <em>Download</em>. To begin an empty one, go to{" "}
              <Link to="/workshops" className="text-amber underline underline-offset-4">
                Workshops
              </Link>
              .
            </p>
          </Sheet>
        ) : (
          <Sheet>
            <Part title="Saved backups">
              {list.length === 0 ? (
                <p className="text-pine-soft">None yet in {folder}.</p>
              ) : (
                <Table
                  rows={list}
                  by={(b) => b.name}
                  columns={[
                    { head: "Made", cell: (b) => sayMoment(b.made) },
                    { head: "Acts in it", as: "figure", cell: (b) => b.acts ?? "—" },
                    { head: "Newest in it", plain: true, cell: (b) => b.newest ?? "can’t be read", className: "max-w-80 truncate" },
                    { head: "Size", as: "figure", cell: (b) => showBytes(b.bytes) },
                    {
                      head: "What to do",
                      as: "press",
                      cell: (b) => (
                        <span className="flex justify-end gap-2">
                          <a href={`${file}/${b.name}`} className="act act-small" aria-label={`Download ${sayMoment(b.made)}`}>
                            Download
                          </a>
                          {b.acts !== null && (
                            <Button
                              small
                              disabled={busy}
                              aria-label={`Look at ${sayMoment(b.made)}`}
                              onClick={() => send({ intent: "look", name: b.name })}
                            >
                              Look at it
                            </Button>
                          )}
                          {b.acts !== null && (
                            <Link to={`/backups?backup=${b.name}`} className="act act-small" aria-label={`Go back to ${sayMoment(b.made)}`}>
                              Go back to it …
                            </Link>
                          )}
                        </span>
                      ),
                    },
                  ]}
                />
              )}
              <p className="mt-2 text-small text-pine-soft">
                Made by itself within an hour of any change while Zelbin is open, and checked by reading it back. Saved are the last{" "}
                {RETENTION.last}, and the newest of each of {RETENTION.days} days, {RETENTION.weeks} weeks and {RETENTION.months} months.
              </p>
            </Part>
            <Part title="Where they go" screenOnly>
              {byDefault && (
                <Caution>
                  This is the disk your books are on: if it breaks, both are gone. Name a folder on another disk, a stick, or one that is
                  copied elsewhere by itself.
                </Caution>
              )}
              <form
                key={folder}
                className="mt-3 flex flex-wrap items-start gap-3"
                onSubmit={(e) => {
                  e.preventDefault();
                  const typed = new FormData(e.currentTarget).get("folder");
                  send({ intent: "folder", folder: typeof typed === "string" ? typed : "" });
                }}
              >
                <Text
                  label="Folder"
                  name="folder"
                  defaultValue={folder}
                  className="min-w-0 flex-1 basis-96"
                  hint="The whole way to it; it has to be there. Leave it empty for the usual one."
                  problem={problem("folder")}
                />
                <Button type="submit" className="mt-6 self-start" disabled={busy}>
                  Save the folder
                </Button>
              </form>
            </Part>
            {kept.length > 0 && (
              <Part title="Books kept from before" screenOnly>
                <p className="mb-2 text-pine-soft">
                  What was here when an archive took its place. Going back to one keeps what is here now in turn.
                </p>
                <ul className="divide-y divide-rule">
                  {kept.map((name) => (
                    <li key={name} className="flex flex-wrap items-center justify-between gap-3 py-1.5">
                      <span className="weight">{name}</span>
                      <Button small disabled={busy} onClick={() => send({ intent: "goBack", name })}>
                        Go back to these
                      </Button>
                    </li>
                  ))}
                </ul>
              </Part>
            )}
          </Sheet>
        )}
      </div>
    </div>
  );
}
