import fc from "fast-check";
import { passagesOf, WHOLE_SENTENCES } from "./passages";

test("a line of a kitchen is one passage", () => {
  expect(passagesOf("  250 g  sorghum\tflour, sifted ")).toEqual(["250 g sorghum flour, sifted"]);
});
test("a longer one is parted where a sentence ends; blanks by the thousand are one", () => {
  const sentence = "Whisk the dry things well and stir them into the wet ones until no streak is left.";
  const passages = passagesOf(Array.from({ length: 12 }, () => sentence).join(" "));
  expect(passages.length).toBeGreaterThan(2);
  for (const passage of passages) expect(passage.endsWith(".")).toBe(true);
  expect(passagesOf(`1 cup${" ".repeat(3900)}milk`)).toEqual(["1 cup milk"]);
});
test("nothing but blanks is left out, and no passage is longer than it may be (property)", () => {
  const signs = fc.string({ unit: fc.constantFrom(" ", "a", "½", ",", ".", "(", ")", "1", "/", "\t"), maxLength: 3000 });
  fc.assert(
    fc.property(signs, fc.constantFrom(260, WHOLE_SENTENCES), (line, most) => {
      const passages = passagesOf(line, most);
      expect(passages.join("").replace(/\s/g, "")).toBe(line.replace(/\s/g, ""));
      for (const passage of passages) expect(passage.length).toBeLessThanOrEqual(most);
    }),
    { seed: 29, numRuns: 100 },
  );
});
