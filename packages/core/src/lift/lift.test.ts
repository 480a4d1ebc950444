import fc from "fast-check";
import { resolve } from "../formula/resolve";
import { ledgerOf } from "./ledger";
import { acidCharge, titrationOf } from "./charge";
import { seeded } from "../random";
import {
  carbonAt,
  carbonicShift,
  chargeBalance,
  CRUMB_CO2_ATM,
  evenSteps,
  ionicStrength,
  mixtureOf,
  phOf,
  pKaAt,
  quantile,
  solvePh,
} from "./ph";
import { crystalReaction, releasedAfter, releasedAlong } from "./kinetics";
import { leaveningAcids, mmolPerGram } from "./acids";
import { liftOf } from "./lift";
import { gasOf, stagesOf } from "./gas";
import { builtInShelf, powders } from "../pantry/catalogue";

const items = (...lines: [string, number][]) =>
  resolve(
    lines.map(([ingredientId, grams]) => ({ ingredientId, grams })),
    builtInShelf,
  );
const ledger = (...lines: [string, number][]) => ledgerOf(items(...lines));

describe("stoichiometry by hand", () => {
  test("8.4 g of soda is 100 mmol", () => expect(ledger(["soda", 8.4007]).soda.mid).toBeCloseTo(100, 6));
  test("18.8 g of cream of tartar meets 8.4 g of soda", () => {
    const { neutralised, residualMmol } = ledger(["soda", 8.4], ["cream-of-tartar", 18.8]);
    expect(neutralised.mid).toBeGreaterThan(0.98);
    expect(neutralised.mid).toBeLessThan(1.02);
    expect(residualMmol).toBeLessThan(2);
  });
  test("15 g of 5 % vinegar brings 12.5 mmol, 1.05 g of soda", () => {
    expect(ledger(["vinegar", 15]).acid.mid).toBeCloseTo(12.5, 0);
    expect(ledger(["soda", 1.05], ["vinegar", 15]).neutralised.mid).toBeCloseTo(1, 1);
  });
  test("240 g of buttermilk at 9 meq titrates to 21.6 mmol; half a teaspoon of soda leaves a little alkali", () => {
    const { acid, neutralised, residualSodaG } = ledger(["buttermilk", 240], ["soda", 2.3]);
    expect(acid.mid).toBeGreaterThan(0.85 * 21.6);
    expect(acid.mid).toBeLessThan(21.6);
    expect(neutralised.mid).toBeLessThan(0.85);
    expect(residualSodaG).toBeGreaterThan(0.3);
    expect(residualSodaG).toBeLessThan(0.9);
  });
  test("14 g of a powder with 29 % soda holds 48 mmol and meets itself", () => {
    const { soda, neutralised } = ledger(["powder-double-acting", 14]);
    expect(soda.mid).toBeCloseTo((14 * 0.29 * 1000) / 84.007, 6);
    expect(neutralised.mid).toBeGreaterThan(0.95);
    expect(neutralised.mid).toBeLessThan(1.06);
  });
  test.each(["powder-double-acting", "powder-aluminium-free", "powder-phosphate", "powder-single-acting"])(
    "%s is balanced by make",
    (id) => {
      const { neutralised } = ledger([id, 10]);
      expect(neutralised.low).toBeLessThan(1);
      expect(neutralised.high).toBeGreaterThan(1);
    },
  );
  test("neutralising values lie at or under what the equation allows", () => {
    const eq: Record<string, number> = {
      mcp: 2.67,
      "mcp-coated": 2.67,
      sapp: 2,
      sas: 3,
      salp: 11.5,
      dcp: 1,
      tartrate: 1,
      gdl: 1,
      tartaric: 2,
      citric: 3,
      malic: 2,
      fumaric: 2,
      adipic: 2,
    };
    for (const [id, acid] of Object.entries(leaveningAcids)) {
      const theory = (100 * (eq[id] ?? 0) * 84.007) / acid.molarMass;
      expect(acid.neutralisingValue.mid).toBeLessThanOrEqual(theory * 1.02);
    }
  });
  test("sugar and salt bring no acid", () => {
    expect(ledger(["soda", 4], ["white-sugar", 300], ["salt", 10]).acid.mid).toBeCloseTo(0, 9);
  });
  test("egg white is alkaline", () => expect(ledger(["egg-white", 100]).acid.mid).toBeLessThan(0));
});

describe("pH of solutions that textbooks give", () => {
  const solution = (pKa: number[], molar: number, sodium = 0) => ({
    parts: [
      {
        massG: 1,
        factor: 1,
        titration: {
          ph: 7,
          acids: [{ pKa, mmol: molar * 1000, chargeAtOwn: sodium / molar }],
          buffer: 0,
          crystals: [],
          soda: 0,
          spread: { low: 1, high: 1 },
        },
      },
    ],
    sodaMmol: 0,
    waterL: 1,
  });
  test("0.1 M acetic acid 2.88", () => expect(solvePh(solution([4.76], 0.1), 0)).toBeCloseTo(2.88, 2));
  test("acetic acid half neutralised 4.76", () => expect(solvePh(solution([4.76], 0.1, 0.05), 0)).toBeCloseTo(4.76, 2));
  test("in a buffer of 0.1 M salt acetic acid half neutralised reads 4.65, as buffer tables have it", () => {
    const [part] = solution([4.76], 0.1).parts;
    const acid = part && { ...part, titration: { ...part.titration, ph: -2 } };
    // Half as much soda, all of its carbon dioxide gone.
    expect(solvePh({ parts: acid ? [acid] : [], sodaMmol: 50, waterL: 1, ionic: 0.1 }, 0)).toBeCloseTo(4.65, 1);
  });
  test("the second constant of phosphoric acid falls to 6.8 to 6.9 at 0.1 M, of carbonic acid to 9.9 to 10.1", () => {
    expect(pKaAt([2.15, 7.2, 12.35], 0.1)[1]).toBeGreaterThan(6.8);
    expect(pKaAt([2.15, 7.2, 12.35], 0.1)[1]).toBeLessThan(6.9);
    expect(pKaAt([6.35, 10.33], 0.1)[1]).toBeGreaterThan(9.9);
    expect(pKaAt([6.35, 10.33], 0.1)[1]).toBeLessThan(10.1);
    expect(pKaAt([4.76], 0)).toEqual([4.76]);
  });
  test("0.1 M tartaric acid 2.04", () => expect(solvePh(solution([3.04, 4.37], 0.1), 0)).toBeCloseTo(2.04, 1));
  test("0.1 M citric acid 2.1", () => expect(solvePh(solution([3.13, 4.76, 6.4], 0.1), 0)).toBeCloseTo(2.08, 1));
  test("0.1 M sodium bicarbonate, closed, 8.3", () => {
    const closed = { parts: [], sodaMmol: 100, waterL: 1 };
    expect(solvePh(closed, 1e9)).toBeCloseTo(8.34, 1);
  });
  test("bicarbonate half met by a strong acid under 1 atm of carbon dioxide, pK1 + log(0.05/0.0345)", () => {
    expect(solvePh({ ...solution([-3], 0.05), sodaMmol: 100 }, 1)).toBeCloseTo(6.35 + Math.log10(0.05 / 0.0345), 1);
  });
  test("the mean charge of a polyprotic acid runs from 0 to the number of its protons", () => {
    expect(acidCharge([3.13, 4.76, 6.4], -2)).toBeCloseTo(0, 4);
    expect(acidCharge([3.13, 4.76, 6.4], 12)).toBeCloseTo(3, 4);
    expect(acidCharge([4.76], 4.76)).toBeCloseTo(0.5, 12);
  });
});

const kitchen = fc.record({
  flour: fc.double({ min: 100, max: 500, noNaN: true }),
  milk: fc.double({ min: 50, max: 400, noNaN: true }),
  sour: fc.double({ min: 0, max: 300, noNaN: true }),
  soda: fc.double({ min: 0, max: 12, noNaN: true }),
  powder: fc.double({ min: 0, max: 25, noNaN: true }),
  lemon: fc.double({ min: 0, max: 60, noNaN: true }),
});
const batter = (k: { flour: number; milk: number; sour: number; soda: number; powder: number; lemon: number }) =>
  items(
    ["sorghum-flour", k.flour],
    ["whole-milk", k.milk],
    ["kefir", k.sour],
    ["soda", k.soda],
    ["powder-aluminium-free", k.powder],
    ["lemon-juice", k.lemon],
    ["egg", 50],
  );

describe("pH of batters", () => {
  test("charges close to 1e-9", () => {
    fc.assert(
      fc.property(kitchen, (k) => {
        const mixture = mixtureOf(batter(k), 300);
        expect(Math.abs(chargeBalance(mixture, solvePh(mixture, CRUMB_CO2_ATM.mid), CRUMB_CO2_ATM.mid))).toBeLessThan(1e-9);
      }),
    );
  });
  test("more acid never raises pH, more soda never lowers it", () => {
    fc.assert(
      fc.property(kitchen, fc.double({ min: 0.1, max: 40, noNaN: true }), (k, more) => {
        const ph = phOf(batter(k), 300).crumb.mid;
        expect(phOf(batter({ ...k, lemon: k.lemon + more }), 300).crumb.mid).toBeLessThanOrEqual(ph + 1e-9);
        expect(phOf(batter({ ...k, soda: k.soda + more / 10 }), 300).crumb.mid).toBeGreaterThanOrEqual(ph - 1e-9);
      }),
    );
  });
  test("a powder batter is mild, spare soda is alkaline, buttermilk without soda is tangy", () => {
    const base: [string, number][] = [
      ["gf-blend-plain", 300],
      ["whole-milk", 240],
      ["egg", 100],
      ["butter", 90],
      ["white-sugar", 140],
    ];
    const ph = (...more: [string, number][]) => phOf(items(...base, ...more), 330).crumb.mid;
    expect(ph(["powder-aluminium-free", 18])).toBeGreaterThan(6.5);
    expect(ph(["powder-aluminium-free", 18])).toBeLessThan(7.7);
    expect(ph(["soda", 8])).toBeGreaterThan(8.8);
    expect(phOf(items(["gf-blend-plain", 300], ["buttermilk", 300], ["vinegar", 20]), 330).crumb.mid).toBeLessThan(6);
  });
  test("no native pH is moved by an ingredient alone", () => {
    for (const id of ["kefir", "lemon-juice", "honey", "egg-white", "cocoa-natural"]) {
      const mixture = mixtureOf(items([id, 100]), 0.001);
      const own = titrationOf(items([id, 100])[0]?.ingredient as never).ph;
      expect(solvePh({ ...mixture, waterL: 1e-9 }, 1)).toBeCloseTo(own, 2);
    }
  });
});

describe("gas", () => {
  const powderAt = (id: "sulfate" | "pyrophosphate" | "tartrate", minutes: number) => {
    const acids = Object.entries(powders.get(id)?.acids ?? {}) as [keyof typeof leaveningAcids, number][];
    const whole = acids.reduce((all, [acid, share]) => all + share * mmolPerGram(leaveningAcids[acid]), 0);
    return acids.reduce(
      (all, [acid, share]) =>
        all + (share * mmolPerGram(leaveningAcids[acid]) * releasedAfter(crystalReaction(acid), minutes * 60, 22)) / whole,
      0,
    );
  };
  test.each([
    ["sulfate", 17, 24, 29],
    ["pyrophosphate", 25, 36, 43],
    ["tartrate", 69, 90, 97],
  ] as const)("%s powder at 22 °C after 2, 10 and 30 min", (id, two, ten, thirty) => {
    expect(Math.abs(100 * powderAt(id, 2) - two)).toBeLessThan(2);
    expect(Math.abs(100 * powderAt(id, 10) - ten)).toBeLessThan(2);
    expect(Math.abs(100 * powderAt(id, 30) - thirty)).toBeLessThan(2);
  });
  test("a curve at constant temperature is the closed form", () => {
    const times = Array.from({ length: 61 }, (_, i) => i * 30);
    const along = releasedAlong(
      crystalReaction("sapp"),
      times,
      times.map(() => 40),
    );
    expect(along[60]).toBeCloseTo(releasedAfter(crystalReaction("sapp"), 1800, 40), 9);
  });
  test("carbon is conserved over sources, carbonate and stages", () => {
    fc.assert(
      fc.property(kitchen, fc.double({ min: 0, max: 7200, noNaN: true }), (k, seconds) => {
        const all = batter(k);
        const book = ledgerOf(all);
        const gas = gasOf(all, book, phOf(all, 300).carbonMmol);
        const reacting = gas.sources.reduce((sum, s) => sum + s.mmol, 0);
        expect(reacting + gas.carbonate).toBeCloseTo(book.soda.mid, 9);
        const stages = stagesOf(gas, seconds, 22);
        if (book.soda.mid > 0) expect(stages.bench + stages.oven + stages.never).toBeCloseTo(1, 9);
        for (const share of Object.values(stages)) expect(share).toBeGreaterThanOrEqual(-1e-12);
      }),
    );
  });
  test("14 g of powder makes 1.18 L at 25 °C if all reacts", () => {
    const { lift } = liftOf(items(["powder-double-acting", 14], ["white-rice-flour", 86]), {});
    expect(lift.gasMlPer100g.mid).toBeGreaterThan(1150);
    expect(lift.gasMlPer100g.mid).toBeLessThan(1210);
  });
  test("soda with dissolved acid loses its lift on the bench, a double-acting powder keeps it", () => {
    const stand = (leavener: [string, number], liquid: [string, number]) =>
      liftOf(items(["white-rice-flour", 200], liquid, leavener), {}).lift.standMinutes.tenth;
    expect(stand(["soda", 1.8], ["kefir", 250]) ?? 0).toBeLessThan(stand(["powder-double-acting", 12], ["water", 200]) ?? 0);
  });
});

describe("verdicts", () => {
  const verdict = (...lines: [string, number][]) => liftOf(items(...lines), {}).lift.verdict;
  test("each has its case", () => {
    expect(verdict(["white-rice-flour", 200], ["whole-milk", 200], ["soda", 5])).toBe("short-of-acid");
    expect(verdict(["white-rice-flour", 200], ["kefir", 200], ["soda", 1.5])).toBe("balanced");
    expect(verdict(["white-rice-flour", 200], ["kefir", 300], ["lemon-juice", 60], ["soda", 2])).toBe("acid-heavy");
    expect(verdict(["red-lentil-flour", 200], ["water", 300])).toBe("no-lift");
    expect(verdict(["white-rice-flour", 200], ["seltzer", 250])).toBe("balanced");
  });
});

describe("ranges", () => {
  test("one even step is the golden ratio, two are the powers of the plastic number", () => {
    expect(evenSteps(1)[0]).toBeCloseTo((Math.sqrt(5) - 1) / 2, 9);
    expect(evenSteps(2)[0]).toBeCloseTo(0.7548776662, 9);
    expect(evenSteps(2)[1]).toBeCloseTo(0.5698402909, 9);
  });
  test("32 points cover every half, quarter and pair of quarters of five dimensions", () => {
    const steps = evenSteps(5);
    const points = Array.from({ length: 32 }, (_, i) => steps.map((step) => (0.5 + (i + 1) * step) % 1));
    for (let d = 0; d < 5; d++) {
      const counts = [0, 1, 2, 3].map((q) => points.filter((p) => Math.floor((p[d] ?? 0) * 4) === q).length);
      expect(Math.min(...counts)).toBeGreaterThanOrEqual(6);
      const mean = points.reduce((all, p) => all + (p[d] ?? 0), 0) / 32;
      expect(Math.abs(mean - 0.5)).toBeLessThan(0.06);
    }
  });
  test("quantiles by hand", () => {
    expect(quantile([1, 2, 3, 4, 5], 0.5)).toBe(3);
    expect(quantile([1, 2, 3, 4, 5], 0.05)).toBeCloseTo(1.2, 9);
    expect(quantile([7], 0.95)).toBe(7);
  });
  test("a powder's soda and acid move together: more of it in grams leaves what is met as it is", () => {
    const spread = (ingredientId: string) =>
      ledgerOf(
        resolve(
          [
            { ingredientId, grams: { low: 5, mid: 10, high: 15 } },
            { ingredientId: "white-rice-flour", grams: 100 },
          ],
          builtInShelf,
        ),
      );
    const powder = spread("powder-aluminium-free").neutralised;
    // Half the powder to half as much again: its soda doubles and trebles, its ratio only knows its acids within a few percent.
    expect(powder.high - powder.low).toBeLessThan(0.25);
    const soda = ledgerOf(
      resolve(
        [
          { ingredientId: "soda", grams: { low: 1, mid: 2, high: 3 } },
          { ingredientId: "buttermilk", grams: 240 },
        ],
        builtInShelf,
      ),
    ).neutralised;
    expect(soda.high - soda.low).toBeGreaterThan(0.7);
  });
  test("3 g of salt and 2 g of soda in 300 g of water are a quarter of a mole a litre", () => {
    const salted = resolve(
      [
        { ingredientId: "salt", grams: 3 },
        { ingredientId: "soda", grams: 2 },
      ],
      builtInShelf,
    );
    expect(ionicStrength(salted, 300)).toBeCloseTo((51.3 + 23.8) / 300, 2);
  });
  test("a batter whose powder has hardly dissolved is less acid than when all has, and cream of tartar is there at once", () => {
    const batterOf = (id: string) => {
      const items = resolve(
        [
          { ingredientId: "white-rice-flour", grams: 200 },
          { ingredientId: "whole-milk", grams: 220 },
          { ingredientId: id, grams: 10 },
        ],
        builtInShelf,
      );
      const { lift } = liftOf(items, {});
      return lift.batterPh - phOf(items, 200).batter;
    };
    expect(batterOf("powder-double-acting")).toBeGreaterThan(0.1);
    expect(batterOf("powder-single-acting")).toBeLessThan(batterOf("powder-double-acting"));
    expect(batterOf("powder-single-acting")).toBeGreaterThanOrEqual(0);
  });
});

describe("one chemistry: the carbon of the gas is the carbon of the pH", () => {
  const batter = (soda: number, acid: number, milk = 250) =>
    items(["gf-blend-plain", 250], ["whole-milk", milk], ["egg", 100], ["sunflower-oil", 80], ["white-sugar", 120], ["soda", soda], ["cream-of-tartar", acid]); // prettier-ignore
  test("carbonic acid over temperature as tabulated: pK1 6.352 at 25 °C, 6.285 at 50; pK2 10.329 and 10.172", () => {
    expect(carbonicShift(25)).toEqual([0, 0].map((value) => expect.closeTo(value, 9)));
    expect(carbonicShift(50)[0]).toBeCloseTo(6.285 - 6.352, 2);
    expect(carbonicShift(50)[1]).toBeCloseTo(10.172 - 10.329, 2);
  });
  test("soda that boils in water loses half of its carbon when no CO2 is over it, and nothing under an ocean of it", () => {
    const water = { parts: [], sodaMmol: 100, waterL: 1, celsius: 90 };
    expect(carbonAt(water, 1e-9) / 100).toBeLessThan(0.5);
    expect(carbonAt({ ...water, celsius: 25 }, 1)).toBeGreaterThan(99);
  });
  test("what stays behind as carbonate is what the hot balance holds, for any soda and acid; sources and carbonate make up the soda", () => {
    const random = seeded(7);
    for (let n = 0; n < 60; n++) {
      const all = batter(0.2 + 9 * random(), 8 * random(), 150 + 150 * random());
      const water = all.reduce((g, { ingredient, massG }) => g + (massG * (ingredient.per100g.water ?? 0)) / 100, 0);
      const book = ledgerOf(all);
      const { carbonMmol } = phOf(all, water);
      const gas = gasOf(all, book, carbonMmol);
      expect(gas.carbonate).toBeLessThanOrEqual(carbonMmol + 1e-9);
      expect(gas.sources.reduce((sum, { mmol }) => sum + mmol, 0) + gas.carbonate).toBeCloseTo(book.soda.mid, 9);
    }
  });
  test("more soda without acid: more alkaline, ever less of it as gas, and never a lift for nothing", () => {
    const lifts = [0.5, 1, 2, 3, 4, 6, 8].map((soda) => ({ soda, ...liftOf(batter(soda, 0), {}).lift }));
    for (const [k, here] of lifts.entries()) {
      const before = lifts[k - 1];
      if (!before) continue;
      expect(here.ph.mid).toBeGreaterThan(before.ph.mid);
      expect(here.stages.never).toBeGreaterThanOrEqual(before.stages.never - 1e-9);
      expect(here.gasMlPer100g.mid / here.soda).toBeLessThanOrEqual(before.gasMlPer100g.mid / before.soda + 1e-9);
    }
  });
  test("no verdict against the crumb: acid-heavy is never over pH 7, balanced never over 7.8", () => {
    const random = seeded(19);
    for (let n = 0; n < 80; n++) {
      const { verdict, ph } = liftOf(batter(7 * random(), 12 * random()), {}).lift;
      if (verdict === "acid-heavy") expect(ph.mid).toBeLessThan(7);
      if (verdict === "balanced") expect(ph.mid).toBeLessThanOrEqual(7.8);
    }
  });
});
