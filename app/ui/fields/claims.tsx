/** Beside a product's name: a word in it that claims more than a cosmetic may. It warns, and holds nothing back. */
import { sayClaims } from "#core/label/claims";

export function Claims({ name }: { name: string }) {
  const say = sayClaims(name);
  return (
    say !== null && (
      <p role="note" className="mt-1 text-small font-semibold text-honey">
        {say}
      </p>
    )
  );
}
