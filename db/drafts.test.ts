/** Unfinished sheets: saved as they are typed, gone with the act they become, never kept after it. */
import { describe, expect, it } from "vitest";
import { draftsOn, dropDraft, keepDraft, listDrafts, type DraftIn } from "./drafts.ts";
import { saveMaterial } from "./shelf/keepMaterial.ts";
import { DAY, db, eachTestHasAWorkshop, refused, token } from "#test/db/workshop";

eachTestHasAWorkshop();

const typed = (over: Partial<DraftIn> = {}): DraftIn => ({
  path: "/shelf/new",
  sheet: "",
  title: "Rose oil",
  token: token(),
  seen: null,
  values: { mine: { name: "Rose oil" }, base: { name: "" } },
  ...over,
});
const rose = (t: string) => saveMaterial(db, { name: "Rose oil", kind: "oil" }, { day: DAY, token: t });

describe("an unfinished sheet", () => {
  it("is one to a page and sheet, as it was last typed, until it is thrown away", async () => {
    const first = typed();
    expect(await keepDraft(db, first)).toBe(true);
    await keepDraft(db, { ...first, title: "Rose", values: { mine: { name: "Rose" }, base: {} } });
    await keepDraft(db, typed({ sheet: "other" }));
    await keepDraft(db, typed({ path: "/shelf/new?kind=wax" }));
    expect((await draftsOn(db, "/shelf/new")).map((d) => [d.sheet, d.title])).toEqual(
      expect.arrayContaining([
        ["", "Rose"],
        ["other", "Rose oil"],
      ]),
    );
    expect(await listDrafts(db)).toHaveLength(3);
    await dropDraft(db, "/shelf/new", "");
    expect((await draftsOn(db, "/shelf/new")).map((d) => d.sheet)).toEqual(["other"]);
  });

  it("goes in the same transaction as its act is done, and what comes late is not kept any more", async () => {
    const d = typed();
    await keepDraft(db, d);
    await rose(d.token);
    expect(await draftsOn(db, d.path)).toEqual([]);
    expect(await keepDraft(db, d)).toBe(false);
    expect(await draftsOn(db, d.path)).toEqual([]);
  });

  it("stays when its act is refused", async () => {
    await rose(token());
    const d = typed();
    await keepDraft(db, d);
    await refused(rose(d.token));
    expect(await draftsOn(db, d.path)).toHaveLength(1);
  });

  it("sent and typed on at once, it is never there after its act", async () => {
    for (let i = 0; i < 25; i++) {
      const d = typed({ path: `/p${i}` });
      const act = saveMaterial(db, { name: `Oil ${i}`, kind: "oil" }, { day: DAY, token: d.token });
      await Promise.all([keepDraft(db, d), act, keepDraft(db, { ...d, title: "Later" })]);
    }
    expect(await listDrafts(db)).toEqual([]);
  });
});
