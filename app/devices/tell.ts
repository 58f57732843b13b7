/** Presses a button on a device; a simulated one is told too what a hand does at it. */
import { object, string } from "yup";
import { serving } from "../server/workshop.server.ts";
import { oneOf } from "../forms/fields.ts";
import { readSheet } from "../forms/sheet.server.ts";
import type { Route } from "./+types/tell";

const LINE = /^(tare|gross|hand [a-z0-9. ]{1,40})$/;
const schema = object({ device: oneOf(["scale", "thermometer"] as const), line: string().matches(LINE).required() });

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { device, line } = sheet.value;
  return { done: (await serving().bench?.[device].tell(line)) ?? false };
}
