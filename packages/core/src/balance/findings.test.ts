import { readings, type AnalyseInput, type Analysis } from "./analyse";
import { kinds } from "../formula/kinds";
import { findingIds } from "./finding";
import { consistencyAgainst, profileOf, typicalLines } from "./bands";

type Lines = Record<string, number>;
const sheet = (lines: Lines, more: AnalyseInput = {}): AnalyseInput => ({
  kind: "muffin",
  lines: Object.entries(lines).map(([ingredientId, grams]) => ({ ingredientId, grams })),
  ...more,
});
const good: Lines = {
  "gf-blend-plain": 240,
  xanthan: 1.2,
  "whole-milk": 190,
  egg: 95,
  "sunflower-oil": 75,
  "white-sugar": 115,
  "powder-aluminium-free": 15,
  salt: 2.4,
};
const read = (lines: Lines, more?: AnalyseInput): Analysis => readings(sheet(lines, more), undefined, true);
const ids = (lines: Lines, more?: AnalyseInput): string[] => read(lines, more).findings.map((finding) => finding.id);
const find = (id: string, lines: Lines, more?: AnalyseInput) => {
  const found = read(lines, more).findings.find((finding) => finding.id === id);
  if (!found) throw new Error(`no ${id} among ${ids(lines, more).join(", ")}`);
  return found;
};
/** The number of grams that a fix names before a word. */
const gramsIn = (fix: string | undefined, pattern: RegExp): number => Number(pattern.exec(fix ?? "")?.[1] ?? NaN);

test("a formula in order has nothing to mend", () => expect(ids(good)).toEqual([]));

describe("each finding has its case, and a neighbour just beside it has none", () => {
  test.each([
    ["soda-unmet", { ...good, soda: 4 }, { ...good, soda: 0.1 }],
    ["powder-high", { ...good, "powder-aluminium-free": 24 }, { ...good, "powder-aluminium-free": 18 }],
    ["no-binder", { ...good, xanthan: 0, egg: 0, "whole-milk": 260 }, { ...good, xanthan: 1.2, egg: 0, "whole-milk": 260 }],
    [
      "binder-doubled",
      { ...good, "gf-blend-plain": 0, "gf-blend-gum": 240, xanthan: 6 },
      { ...good, "gf-blend-plain": 0, "gf-blend-gum": 240, xanthan: 0, egg: 0, "whole-milk": 260 },
    ],
    ["too-wet", { ...good, "whole-milk": 520 }, good],
    ["too-dry", { ...good, "whole-milk": 20, egg: 20 }, good],
    ["sugar-high", { ...good, "white-sugar": 300 }, { ...good, "white-sugar": 180 }],
    ["fat-high", { ...good, "sunflower-oil": 210 }, { ...good, "sunflower-oil": 120 }],
    ["gluten-check", { ...good, "wheat-flour": 60 }, good],
    ["oats-check", { ...good, "oat-flour": 60 }, good],
  ] as [string, Lines, Lines][])("%s", (id, faulty, fine) => {
    expect(ids(faulty)).toContain(id);
    expect(ids(fine)).not.toContain(id);
  });
  test("lift-early belongs to a batter that stands, not to the batter", () => {
    const soured: Lines = { ...good, "whole-milk": 0, buttermilk: 200, soda: 1.8, "powder-aluminium-free": 0 };
    expect(ids(soured, { process: { restMinutes: 60 } })).toContain("lift-early");
    expect(ids(soured, { process: { restMinutes: 0 } })).not.toContain("lift-early");
  });
  test("colours shift only where there is a pigment and an alkaline crumb", () => {
    const alkaline: Lines = { ...good, soda: 5 };
    expect(ids({ ...alkaline, blueberries: 120 })).toContain("colour-shift");
    expect(ids(alkaline)).not.toContain("colour-shift");
    expect(ids({ ...good, "powder-aluminium-free": 9, blueberries: 40, "lemon-juice": 25 })).not.toContain("colour-shift");
  });
  test("a pan too small stops, one too large is a note", () => {
    const tin = (lengthMm: number, widthMm: number, heightMm: number): AnalyseInput => ({
      kind: "loaf",
      vessel: { shape: "rectangular", lengthMm, widthMm, heightMm },
    });
    expect(find("pan-overfull", good, tin(140, 80, 50)).severity).toBe("stop");
    expect(find("pan-shallow", good, tin(400, 300, 60)).severity).toBe("note");
    expect(ids(good, tin(215, 115, 65)).filter((id) => id.startsWith("pan-"))).toEqual([]);
    // One that a text does not name is a remark, until the baker takes another.
    const small = tin(140, 80, 50);
    const said = { vessel: small.vessel, panNamed: false, batterG: 700 } as NonNullable<AnalyseInput["said"]>;
    expect(find("pan-overfull", good, { ...small, said })).toMatchObject({ severity: "note", message: expect.stringContaining("since none is named") as string }); // prettier-ignore
    expect(find("pan-overfull", good, { ...small, said: { ...said, panNamed: true } }).severity).toBe("stop");
    expect(find("pan-overfull", good, { ...tin(150, 80, 50), said }).severity).toBe("stop");
  });
});

describe("a fix that names an amount works when it is followed", () => {
  test("hold back so much, add so much", () => {
    const wet = { ...good, "whole-milk": 420 };
    const back = gramsIn(find("too-wet", wet).fix, /Hold back ([\d.]+) g/);
    expect(ids({ ...wet, "whole-milk": 420 - back })).not.toContain("too-wet");
    const dry = { ...good, "whole-milk": 20, egg: 20 };
    const more = gramsIn(find("too-dry", dry).fix, /Add ([\d.]+) g/);
    expect(ids({ ...dry, "whole-milk": 20 + more })).not.toContain("too-dry");
  });
  test("this pan takes about so much", () => {
    const tin: AnalyseInput = { kind: "loaf", vessel: { shape: "rectangular", lengthMm: 160, widthMm: 90, heightMm: 60 } };
    const most = gramsIn(find("pan-overfull", good, tin).fix, /takes about (\d+) g/);
    const mass = Object.values(good).reduce((all, grams) => all + grams, 0);
    const less = Object.fromEntries(Object.entries(good).map(([id, grams]) => [id, (grams * most) / mass]));
    expect(ids(less, tin)).not.toContain("pan-overfull");
  });
  test("bake within so many minutes", () => {
    const soured: Lines = { ...good, "whole-milk": 0, buttermilk: 200, soda: 1.8, "powder-aluminium-free": 0 };
    const within = gramsIn(find("lift-early", soured, { process: { restMinutes: 90 } }).fix, /within (\d+) min/);
    expect(ids(soured, { process: { restMinutes: within } })).not.toContain("lift-early");
  });
});

describe("how they speak", () => {
  const faulty = { ...good, soda: 5, xanthan: 9, "white-sugar": 320, blueberries: 100, "oat-flour": 40 };
  test("the gravest first; each with its reason; amounts carry their unit", () => {
    const { findings } = read(faulty);
    const order = { stop: 0, caution: 1, note: 2 };
    findings
      .slice(1)
      .forEach((finding, i) => expect(order[finding.severity]).toBeGreaterThanOrEqual(order[findings[i]?.severity ?? "stop"]));
    for (const { message, why, id } of findings) {
      expect(findingIds).toContain(id);
      expect(message.length).toBeGreaterThan(15);
      expect(why.length).toBeGreaterThan(15);
      expect(`${message} ${why}`).not.toMatch(/NaN|undefined|Infinity|\d\.\d{4}/);
    }
    expect(find("soda-unmet", faulty).message).toMatch(/[\d.]+ g of soda finds no acid/);
  });
  test("they point at the lines they speak of", () => {
    expect(find("soda-unmet", faulty).ingredientIds).toContain("soda");
    expect(find("oats-check", faulty).ingredientIds).toEqual(["oat-flour"]);
  });
  test("the fix for unmet soda speaks the kitchen's spoons", () => {
    expect(find("soda-unmet", faulty, { measures: "us" }).fix).toMatch(/tsp/);
  });
});

describe("kinds", () => {
  test.each(kinds)(
    "%s: bands are in order, its typical batter stands in all of them, and its consistency is one it may have",
    (kind) => {
      const profile = profileOf(kind);
      const { bands, body } = readings({ kind, batchG: 800 });
      for (const { name, low, high, value } of bands) {
        expect(low).toBeLessThan(high);
        expect([name, value >= low * 0.98 && value <= high * 1.02]).toEqual([name, true]);
      }
      expect(consistencyAgainst(body.consistency, kind)).toBe(0);
      expect(profile.why.length).toBeGreaterThan(30);
      expect(typicalLines(kind, 800).reduce((all, line) => all + line.grams, 0)).toBeCloseTo(800, 6);
    },
  );
});
