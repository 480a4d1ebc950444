import fc from "fast-check";
import { bareKitchen, beginKind, catalogue, formulaFrom, kinds, mended, readRecipe, shelfWith } from "../index";
import { builtInShelf } from "../pantry/catalogue";
import { durationOf, minutesOf } from "./duration";
import { formulaCsv, formulaJsonLd, formulaMarkdown, formulaText } from "./formula-out";
import { fromRecipeNode, fromTable, fromText, guessColumns, recipeNodes, severalIn } from "./incoming";
import { outgoing, outLine } from "./outgoing";
import { looksLikeTable, readTable, tableText } from "./table";
import type { Formula } from "../formula/formula";

const line = (id: string, ingredientId: string, grams: number, component?: string): Formula["lines"][number] => ({
  id,
  ingredientId,
  grams: { low: grams, mid: grams, high: grams },
  ...(component ? { component } : {}),
});

const twoParts: Formula = {
  ...beginKind("loaf", "metric", 800),
  title: "Pier loaf",
  lines: [
    line("a", "buckwheat-flour", 212.25),
    line("b", "kefir", 240),
    line("c", "egg", 104.5),
    line("d", "sunflower-oil", 60),
    line("e", "soda", 3.1),
    line("f", "pear", 150, "fill"),
    line("g", "dark-brown-sugar", 32, "fill"),
  ],
  components: [{ id: "fill", name: "Pear filling", role: "filling" }],
  notes: "Turn it once.\n=SUM(A1) is a note too.",
};

/** What is weighed in: component, ingredient, grams to a hundredth; in no order. */
const weighedIn = ({ lines, components = [] }: Formula): string[] =>
  lines
    .map(({ component, ingredientId, grams }) => {
      const part = components.find(({ id }) => id === component)?.name ?? "";
      return `${part.toLowerCase().replace(/^for the /, "")}|${ingredientId}|${Math.round(100 * (grams?.mid ?? -1)) / 100}`;
    })
    .sort();

const back = (text: string): Formula => formulaFrom(readRecipe(text, "metric"), "metric");

describe("a formula goes out and comes back", () => {
  const out = outgoing(twoParts, bareKitchen, { id: "pier", version: 3 });

  it("as Markdown, to the hundredth of a gram and in its parts", () => {
    expect(out.warnings).toEqual([]);
    expect(weighedIn(back(formulaMarkdown(out)))).toEqual(weighedIn(twoParts));
  });

  it("as plain text too, with title, kind, oven and pan", () => {
    const again = back(formulaText(out));
    expect(weighedIn(again)).toEqual(weighedIn(twoParts));
    expect(again.title).toBe("Pier loaf");
    expect(again.kind).toBe("loaf");
    expect(again.oven.celsius).toBe(twoParts.oven.celsius);
    expect(again.vessel.lengthMm).toBe(twoParts.vessel.lengthMm);
  });

  it("as JSON-LD, through what any program may do to it: parse, order, print", () => {
    const json: unknown = JSON.parse(JSON.stringify(formulaJsonLd(out, null)));
    const [node] = recipeNodes({ "@graph": [{ "@type": "WebSite" }, json] });
    const found = fromRecipeNode(node ?? {}, builtInShelf);
    const reading = mended(readRecipe(found.text, "metric"), found.mending, "metric");
    expect(weighedIn(formulaFrom(reading, "metric", found.kind))).toEqual(weighedIn(twoParts));
    expect(reading.questions).toEqual([]);
    expect(found.kind).toBe("loaf");
  });

  it("as CSV, with its columns guessed from their heads", () => {
    const table = readTable(formulaCsv(out, bareKitchen));
    const [found] = fromTable(table, guessColumns(table.head), builtInShelf, "Pier loaf");
    const reading = mended(readRecipe(found?.text ?? "", "metric"), found?.mending ?? {}, "metric");
    expect(weighedIn(formulaFrom(reading, "metric"))).toEqual(weighedIn(twoParts));
  });

  it("whatever it is made of: any ingredients of the shelf in any grams (property)", () => {
    const plain = catalogue.filter(({ id }) => id !== "potato-flour");
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.tuple(fc.constantFrom(...plain), fc.integer({ min: 1, max: 99_999 })), {
          minLength: 2,
          maxLength: 8,
          selector: ([{ id }]) => id,
        }),
        fc.constantFrom(...kinds),
        (parts, kind) => {
          const formula: Formula = {
            ...beginKind(kind, "metric", 800),
            lines: parts.map(([{ id }, hundredths], k) => line(`l${k}`, id, hundredths / 100)),
          };
          const text = [
            "# A bake", "", "## Ingredients", "",
            ...formula.lines.map((one) => `- ${outLine(one, { ...bareKitchen, measures: "metric" }).written}`),
          ].join("\n"); // prettier-ignore
          expect(weighedIn(back(text))).toEqual(weighedIn(formula));
        },
      ),
      { numRuns: 60, seed: 15 },
    );
  });

  it("says which line another reader may take otherwise", () => {
    // Two own flours of one name: a reader can only take one of them.
    const grey = catalogue
      .filter(({ id }) => id === "buckwheat-flour")
      .flatMap((one) => [
        { ...one, id: "grey-a", name: "Grey flour", aliases: [] },
        { ...one, id: "grey-b", name: "Grey flour", aliases: [] },
      ]);
    const own = { ...bareKitchen, shelf: shelfWith(grey) };
    const told = outgoing({ ...twoParts, lines: [line("x", "grey-a", 10), line("y", "grey-b", 10)] }, own);
    expect(told.warnings).toHaveLength(1);
    expect(told.warnings[0]).toMatch(/Grey flour/);
  });
});

describe("a table", () => {
  it("is RFC 4180: marks, quotes and line ends come back as they were (property)", () => {
    const cell = fc.string({ maxLength: 20 }).map((text) => text.trim());
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 6 }), (rows) => {
        const kept = rows.filter((row) => row.some((one) => one !== ""));
        fc.pre(kept.length > 0);
        const { rows: read } = readTable(tableText(["a", "b", "c"], kept));
        // A line end within a cell is one, whatever its form.
        expect(read).toEqual(kept);
      }),
      { seed: 15 },
    );
  });

  it("gives no cell that a spreadsheet would reckon", () => {
    const text = tableText(["a", "b"], [["=1+1", "@x"], ["-2", "+3"], ["plain", "it's"]]); // prettier-ignore
    expect(text.split("\r\n").slice(1, 3)).toEqual(["'=1+1,'@x", "'-2,'+3"]);
  });

  it("is read with semicolons and decimal commas, its columns in any order", () => {
    const table = readTable("Menge;Einheit;Zutat\n250,5;g;buckwheat flour\n2;tsp;baking soda\n");
    const columns = guessColumns(table.head);
    expect(columns).toEqual({ amount: 0, unit: 1, ingredient: 2 });
    const [found] = fromTable(table, columns, builtInShelf);
    const reading = readRecipe(found?.text ?? "", "metric");
    const [flour, soda] = reading.lines.filter(({ role }) => role === "ingredient");
    expect([flour?.ingredientId, flour?.grams?.mid, soda?.ingredientId]).toEqual(["buckwheat-flour", 250.5, "soda"]);
    // Two teaspoons of soda weigh 9 to 10 g.
    expect(soda?.grams?.mid).toBeGreaterThan(9);
    expect(soda?.grams?.mid).toBeLessThan(10.5);
  }); // prettier-ignore

  const massesOf = (text: string): (number | undefined)[] => {
    const table = readTable(text);
    const [found] = fromTable(table, guessColumns(table.head), builtInShelf);
    return readRecipe(found?.text ?? "", "metric").lines.flatMap(({ role, grams }) => (role === "ingredient" ? [grams?.mid] : []));
  };
  it.each([
    ["kilograms by the head", "Item,Weight (kg)\nbuckwheat flour,1.2\nwhite sugar,0.45\n", [1200, 450]],
    ["kilograms by the cell", "Item,Weight\nbuckwheat flour,1.2 kg\nwhite sugar,450 g\n", [1200, 450]],
    ["ounces by the head", "Item,Weight (oz)\nbuckwheat flour,8\nwhite sugar,4\n", [226.8, 113.4]],
    ["points between thousands", "Zutat;Gewicht\nbuckwheat flour;1.250\nwhite sugar;1.250,5\n", [1250, 1250.5]],
    ["kilograms with three figures behind the point", "Item;Weight (kg)\nbuckwheat flour;1.200\nwhite sugar;0,450\n", [1200, 450]],
    ["commas between thousands", 'Item,Grams\nbuckwheat flour,"1,250"\nwhite sugar,"450,5"\n', [1250, 450.5]],
  ])("reads masses in %s", (_, text, grams) =>
    expect(massesOf(text).map((g) => Math.round((g ?? NaN) * 1000) / 1000)).toEqual(grams),
  );

  it("takes no share for a mass, and no sum for an ingredient", () => {
    expect(guessColumns(["Item", "Weight %", "Weight (g)"])).toEqual({ ingredient: 0, grams: 2 });
    expect(guessColumns(["Item", "g/100 g"]).grams).toBeUndefined();
    expect(massesOf("Item,Grams\nbuckwheat flour,200\nwhite sugar,100\nTotal weight,300\nGrand total,300\n")).toEqual([200, 100]);
  });

  it("says what is no mass, and keeps the line", () => {
    const table = readTable("Item,Grams\nbuckwheat flour,a few\nwhite sugar,100\n");
    const [found] = fromTable(table, guessColumns(table.head), builtInShelf);
    expect(found?.notes).toEqual(["“a few” for buckwheat flour is no number of grams."]);
    expect(found?.text).toContain("buckwheat flour");
  });

  it("property: whatever unit a column has, its masses are the same", () => {
    const units = { g: 1, kg: 1000, oz: 28.349523, lb: 453.59237 };
    fc.assert(
      fc.property(
        fc.constantFrom(...(Object.keys(units) as (keyof typeof units)[])),
        fc.integer({ min: 5, max: 3000 }),
        (unit, grams) => {
          const figure = (grams / units[unit]).toFixed(6);
          const [byHead] = massesOf(`Item,Weight (${unit})\nwhite sugar,${figure}\nsalt,${figure}\n`);
          const [byCell] = massesOf(`Item,Weight\nwhite sugar,${figure} ${unit}\nsalt,${figure} ${unit}\n`);
          expect(byHead).toBeCloseTo(grams, 1);
          expect(byCell).toBeCloseTo(grams, 1);
        },
      ),
      { numRuns: 30 },
    );
  });

  it("says which column is missing, and an unclosed quotation mark where it stands", () => {
    expect(() => fromTable(readTable("a,b\n1,2\n"), {}, builtInShelf)).toThrow(/Which column names the ingredients.*a, b/);
    expect(() => readTable('name,grams\n"buckwheat,250\n')).toThrow(/quotation mark/i);
    expect(() => readTable("just a sentence")).toThrow(/headings/);
    expect(looksLikeTable("name,grams\nx,1\ny,2\n")).toBe(true);
    expect(looksLikeTable("200 g flour, sifted\n3 eggs")).toBe(false);
  });
});

describe("recipes that come from elsewhere", () => {
  it("several in one text, with what belongs to each", () => {
    const text = "Pier scones\n\nIngredients\n200 g rice flour\n80 g butter\n\nBake at 200 °C for 15 minutes.\n\nMillet bread\n\nIngredients\n300 g millet flour\n250 g water\n\nBake at 190 °C for 40 minutes.";
    const found = severalIn(text, builtInShelf);
    expect(found.map(({ title }) => title)).toEqual(["Pier scones", "Millet bread"]);
    expect(found[0]?.text).toContain("15 minutes");
    expect(found[1]?.text).not.toContain("rice flour");
  }); // prettier-ignore

  it("one recipe stays one, whatever rules and headings stand in it", () => {
    const text = "# Loaf\n\n## Ingredients\n\n- 200 g rice flour\n- 100 g water\n\n---\n\n## Method\n\nStir. Bake at 180 °C.\n\n***\n\nKeeps two days.";
    expect(severalIn(text, builtInShelf)).toHaveLength(1);
  }); // prettier-ignore

  it("a schema.org Recipe with sections, old names and a time only in cookTime", () => {
    const found = fromRecipeNode(
      {
        "@type": ["Thing", "https://schema.org/Recipe"],
        name: "Boat muffins",
        ingredients: ["200 g rice flour", "1 tsp baking soda"],
        recipeInstructions: [{ "@type": "HowToSection", name: "Mix", itemListElement: [{ "@type": "HowToStep", text: "Stir." }] }],
        cookTime: "PT1H5M",
        recipeYield: 12,
      },
      builtInShelf,
    );
    const reading = readRecipe(found.text, "us");
    expect(reading.lines.filter(({ role }) => role === "ingredient")).toHaveLength(2);
    expect(reading.minutes).toEqual({ low: 65, high: 65 });
    expect(found.notes.join(" ")).toMatch(/cookTime/);
  });

  it("what is no recipe is refused with what would be right", () => {
    expect(() => fromText('{"@type":"Person"}', builtInShelf)).toThrow(/no schema.org Recipe/);
    expect(() => fromText("{not json", builtInShelf)).toThrow(/is none/);
    expect(() => fromRecipeNode({ "@type": "Recipe", name: "Empty" }, builtInShelf)).toThrow(/names no ingredients/);
    // Deep and wide data is no reason to stand still.
    let deep: unknown = { "@type": "Recipe" };
    for (let k = 0; k < 5000; k++) deep = [deep];
    expect(recipeNodes(deep)).toEqual([]);
  });

  it("durations of ISO 8601, there and back (property)", () => {
    fc.assert(fc.property(fc.integer({ min: 1, max: 5000 }), (minutes) => minutesOf(durationOf(minutes)) === minutes));
    expect(minutesOf("P1DT2H")).toBe(1560);
    expect(minutesOf("PT90S")).toBe(1.5);
    expect(minutesOf("45 minutes")).toBeNull();
    expect(minutesOf("PT0M")).toBeNull();
  });
});
