/** Fields with their label, hint and problem, and the buttons. */
import { Link } from "react-router";
import type { FieldProblem } from "#core/refused";
import { useId, type ComponentProps, type ReactNode } from "react";
import { useOnceLeft } from "./onceLeft.ts";

export interface FieldProps {
  label: ReactNode;
  problem?: string;
  hint?: ReactNode;
  className?: string;
}

export const describe = (id: string, problem?: string, hint?: ReactNode): string | undefined =>
  [problem && `${id}-p`, hint && `${id}-h`].filter(Boolean).join(" ") || undefined;

export function Frame({ id, label, problem, hint, className, children }: FieldProps & { id: string; children: ReactNode }) {
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-0.5 block text-small font-semibold">
        {label}
      </label>
      {children}
      <Problem id={`${id}-p`} say={problem} />
      {hint && (
        <p id={`${id}-h`} className="hint mt-0.5 text-fine text-pine-soft">
          {hint}
        </p>
      )}
    </div>
  );
}

/** What is wrong and how to correct it, beside its field; the record that prevents it is named with a link. */
export function Problem({ id, say, see }: { id?: string; say?: string | null; see?: FieldProblem["see"] }) {
  return say ? (
    <div id={id} role="alert" className="mt-0.5 text-small font-semibold text-berry">
      {say}
      {see && see.length > 0 && (
        <ul className="mt-0.5 list-disc pl-5">
          {see.map((s) => (
            <li key={s.to}>
              <Link to={s.to} className="underline underline-offset-4">
                {s.name}
              </Link>
            </li>
          ))}
        </ul>
      )}
    </div>
  ) : null;
}

/** Why what is typed on a sheet can't be read yet, shown once the field is left. */
export function OnceLeft({ say, className = "py-2 font-semibold text-berry" }: { say: string; className?: string }) {
  const says = useOnceLeft(say);
  return says && <p className={className}>{says}</p>;
}

/** @param unread why what is typed can't be read yet: shown once the field is left. `problem` is the server's answer, and shown at once. */
export function Text({
  label,
  problem: answer,
  unread,
  hint,
  className,
  ...input
}: FieldProps & ComponentProps<"input"> & { unread?: string }) {
  const id = useId();
  const misread = useOnceLeft(unread ?? null);
  const problem = answer ?? misread ?? undefined;
  return (
    <Frame {...{ id, label, problem, hint, className }}>
      <input
        id={id}
        className="field"
        autoComplete="off"
        placeholder=" "
        aria-invalid={problem ? true : undefined}
        aria-describedby={describe(id, problem, hint)}
        {...input}
      />
    </Frame>
  );
}

export function Area({ label, problem, hint, className, ...input }: FieldProps & ComponentProps<"textarea">) {
  const id = useId();
  return (
    <Frame {...{ id, label, problem, hint, className }}>
      <textarea
        id={id}
        rows={3}
        className="field"
        placeholder=" "
        aria-invalid={problem ? true : undefined}
        aria-describedby={describe(id, problem, hint)}
        {...input}
      />
    </Frame>
  );
}

export function Choice({
  label,
  problem,
  hint,
  className,
  options,
  ...input
}: FieldProps & ComponentProps<"select"> & { options: readonly (readonly [value: string, label: string])[] }) {
  const id = useId();
  return (
    <Frame {...{ id, label, problem, hint, className }}>
      <select id={id} className="field" aria-invalid={problem ? true : undefined} aria-describedby={describe(id, problem, hint)} {...input}>
        {options.map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
    </Frame>
  );
}

export function Button({ main, small, className = "", ...button }: ComponentProps<"button"> & { main?: boolean; small?: boolean }) {
  return <button type="button" className={`act ${main ? "act-main" : ""} ${small ? "act-small" : ""} ${className}`} {...button} />;
}
