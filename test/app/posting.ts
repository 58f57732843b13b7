/** Posting to an action as a browser does, and what it answers. */

export type Action = (args: { request: Request; params: Record<string, string>; context: object }) => Promise<unknown>;
export interface Answer {
  status: number;
  to: string;
  fields: string[];
  say: string;
  data: unknown;
}
/** Posts a sheet. @param of the id in the page's address, or all that is named there */
export async function post(action: unknown, body: object | FormData, of: string | Record<string, string> = ""): Promise<Answer> {
  const request = new Request("http://127.0.0.1/x", { method: "POST", body: body instanceof FormData ? body : JSON.stringify(body) });
  const answer = await (action as Action)({ request, params: typeof of === "object" ? of : of === "" ? {} : { id: of }, context: {} });
  if (answer instanceof Response)
    return { status: answer.status, to: answer.headers.get("location") ?? "", fields: [], say: "", data: null };
  const { data, init } = (answer ?? { data: {} }) as { data: { problems?: { field: string; say: string }[] }; init?: { status?: number } };
  const problems = data.problems ?? [];
  return { status: init?.status ?? 200, to: "", fields: problems.map((p) => p.field), say: problems[0]?.say ?? "", data };
}

/** What a loader gives a page. @param path with what it was asked for: "/markets/new?like=1" */
export async function load<L extends (args: never) => unknown>(loader: L, path: string, params: Record<string, string> = {}) {
  const args = { request: new Request(`http://127.0.0.1${path}`), params, context: {} };
  return (await loader(args as never)) as Awaited<ReturnType<L>>;
}

/** The status that a page or a post is refused with by throwing; 200 where it isn't. */
export const statusOf = (answer: Promise<unknown>): Promise<number> =>
  answer.then(
    () => 200,
    (r: unknown) => (r as Response).status,
  );
