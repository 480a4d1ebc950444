import { ownNames, rememberName } from "./own-names";

beforeEach(() => localStorage.clear());

test("what a baker said that a name means is there again, whatever its case", () => {
  rememberName("Moonbean Flour", "sorghum-flour");
  rememberName(" harbour spice ", "mixed-spice");
  expect([...ownNames()]).toEqual([
    ["moonbean flour", "sorghum-flour"],
    ["harbour spice", "mixed-spice"],
  ]);
});

test("the last word counts, an empty name is none, and the oldest go where there are too many", () => {
  rememberName("moonbean flour", "sorghum-flour");
  rememberName("moonbean flour", "teff-flour");
  rememberName("  ", "salt");
  expect([...ownNames()]).toEqual([["moonbean flour", "teff-flour"]]);
  for (let n = 0; n < 420; n++) rememberName(`name ${n}`, "salt");
  expect(ownNames().size).toBe(400);
  expect(ownNames().has("moonbean flour")).toBe(false);
});

test.each(["not json", '{"a":1}', '[["x"]]', '[["", "salt"]]'])(
  "what cannot be read (%s) is nothing, and can be written over",
  (kept) => {
    localStorage.setItem("uprise.own-names", kept);
    expect(ownNames().size).toBe(0);
    rememberName("x", "salt");
    expect(ownNames().get("x")).toBe("salt");
  },
);
