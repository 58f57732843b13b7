/** What helps to understand something shown, on hover and on focus alike. */
import { Tooltip } from "radix-ui";
import type { ReactNode } from "react";

const SOON_MS = 250;

/** @param children what is pointed at: one element that can take a pointer and the focus */
export function Tip({ says, children }: { says: ReactNode; children: ReactNode }) {
  if (!says) return children;
  return (
    <Tooltip.Provider delayDuration={SOON_MS}>
      <Tooltip.Root>
        <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            sideOffset={4}
            collisionPadding={8}
            className="z-50 max-w-72 rounded border border-rule-strong bg-pine px-2.5 py-1.5 text-small text-sheet shadow-lg"
          >
            {says}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
