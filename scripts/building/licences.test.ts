/** Whatever ships brings its licence along. */
import { expect, it } from "vitest";
import { licencesText, shipped } from "./licences.ts";

it("fonts and packages that ship are named with their texts; tools that don't aren't", () => {
  const text = licencesText(shipped());
  for (const name of [
    "@fontsource/young-serif",
    "@fontsource-variable/atkinson-hyperlegible-next",
    "react",
    "pg",
    "drizzle-orm",
    "recharts",
  ])
    expect(text).toMatch(new RegExp(`^${name} \\d\\S* \\(\\S+\\)$`, "m"));
  expect(text).toMatch(/SIL OPEN FONT LICENSE/i);
  expect(text).not.toMatch(/^(vitest|eslint|dependency-cruiser) /m);
});

it("a text that several share stands once; one that brings none has its licence's name", () => {
  const mit = { license: "MIT", text: "Do as you like." };
  const text = licencesText([
    { name: "a 1", ...mit },
    { name: "b 2", license: "ISC", text: "" },
    { name: "c 3", ...mit },
  ]);
  expect(text.split("Do as you like.")).toHaveLength(2);
  expect(text).toContain("a 1 (MIT)\nc 3 (MIT)\n\nDo as you like.");
  expect(text).toContain("b 2 (ISC)\n\nISC");
});
