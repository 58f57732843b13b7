/** What can be gone to from the workshop's tag: the other workshop, and on a phone the book and the settings. */
import { Link } from "react-router";
import { SERVED } from "#core/workshop";
import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";
import { useWorkshop } from "../ui/workshop.ts";

const ITEM = "block cursor-pointer rounded px-3 py-2 outline-none data-highlighted:bg-honey-wash";

/** On a phone the book and the settings are here instead of at the top. */
const PLACES = [
  ["/workshops", "Both workshops", ""],
  ["/backups", "Backups", ""],
  ["/book", "The book of acts", "sm:hidden"],
  ["/settings", "Settings", "sm:hidden"],
] as const;

/** Opens as it is drawn: it is fetched when the tag is first pressed. */
export default function WhichMenu({ hasOwn, children }: { hasOwn: boolean; children: ReactNode }) {
  const { kind, name } = useWorkshop();
  const other = kind === "own" ? "demo" : "own";
  return (
    <DropdownMenu.Root modal={false} defaultOpen>
      <DropdownMenu.Trigger className="workshop-tag" data-kind={kind}>
        {children}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          sideOffset={6}
          className="z-50 w-[min(21rem,calc(100vw-2rem))] rounded-md border border-rule-strong bg-sheet p-1.5 shadow-xl"
        >
          <DropdownMenu.Label className="px-3 pt-1.5 pb-1 text-small text-pine-soft">
            Open is {SERVED[kind].about}: {name}.
          </DropdownMenu.Label>
          <DropdownMenu.Item asChild className={ITEM}>
            {other === "own" && !hasOwn ? (
              <Link to="/workshops">
                <span className="block font-semibold">Begin your own</span>
                <span className="block text-small text-pine-soft">An empty one beside this; the demo stays as it is.</span>
              </Link>
            ) : (
              <a href={SERVED[other].home}>
                <span className="block font-semibold">{other === "own" ? "Go to your own" : "Go to the demo"}</span>
                <span className="block text-small text-pine-soft">What is typed here stays here.</span>
              </a>
            )}
          </DropdownMenu.Item>
          {[...PLACES, ...(kind === "own" ? [["/begin", "First steps", ""] as const] : [])].map(([to, say, where]) => (
            <DropdownMenu.Item key={to} asChild className={`${ITEM} ${where}`}>
              <Link to={to}>{say}</Link>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
