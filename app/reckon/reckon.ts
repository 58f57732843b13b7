/** Answers the reckon bar: every reading of a question that comes to something, likeliest first. */
import { plainAnswers } from "#core/reckon/plain";
import { readQuestions, type Question } from "#core/reckon/question";
import { measured, together } from "./measured.server.ts";
import { acting, filling, finding, whoHas } from "./places.server.ts";
import { costing, making } from "./products.server.ts";
import { cant, type Reading } from "./reading.ts";
import type { Route } from "./+types/reckon";

const MOST_READINGS = 5;
const MOST_CHARACTERS = 200;

function answer(q: Question): Promise<Reading[]> {
  switch (q.kind) {
    case "convert":
    case "strength":
      return measured(q);
    case "together":
      return together(q);
    case "cost":
      return costing(q.units, q.product);
    case "makes":
      return making(q);
    case "fills":
      return filling(q);
    case "who":
      return whoHas(q.lot);
    case "act":
      return acting(q);
    case "find":
      return finding(q.text);
  }
}

export async function loader({ request }: Route.LoaderArgs): Promise<Reading[]> {
  const text = (new URL(request.url).searchParams.get("q") ?? "").slice(0, MOST_CHARACTERS).replaceAll("\0", "");
  const plain = plainAnswers(text).map((a): Reading => ({ ...a, places: [] }));
  const booked = (await Promise.all(readQuestions(text).map(answer))).flat();
  // What was looked up matters only where nothing was asked.
  const said = [...plain, ...booked].filter((r) => !r.problem);
  const answers = said.some((r) => r.say !== "Found") ? said.filter((r) => r.say !== "Found" || plain.length === 0) : said;
  if (answers.length > 0) return answers.slice(0, MOST_READINGS);
  const [why] = booked.filter((r) => r.problem && r.say !== "");
  return [why ?? cant("Nothing found. It can be asked like this:")];
}
