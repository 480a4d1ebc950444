import fc from "fast-check";
import { differencesOf } from "./differences";
import { describeEdit } from "./edit-words";
import { applyEdit, applyEdits, fieldOf } from "./edits";
import { type Edit, editSchema, faultsIn } from "./edits-schema";
import type { Formula, FormulaLine } from "./formula";
import { begun, current, edited, type History, reasonOf, rebased, replayed, saved, undone, unsaved } from "./history";
import { withWhatIf } from "./what-if";

const exact = (grams: number) => ({ low: grams, mid: grams, high: grams });
const line = (id: string, ingredientId: string, grams: number): FormulaLine => ({ id, ingredientId, grams: exact(grams) });
const formula: Formula = {
  shape: 2,
  title: "Pier loaf",
  kind: "loaf",
  measures: "metric",
  components: [
    { id: "fill", name: "Pear filling", role: "filling", cookedG: 90 },
    { id: "ice", name: "Icing", role: "glaze" },
  ],
  lines: [
    line("a", "sorghum-flour", 200),
    line("b", "kefir", 240),
    line("c", "soda", 3),
    line("d", "kefir", 60),
    { ...line("e", "pear", 120), component: "fill" },
    { id: "f", name: "Sweet dust", source: "some sweet dust", component: "ice" },
  ],
  vessel: { shape: "rectangular", lengthMm: 230, widthMm: 130, heightMm: 70, material: "light-metal" },
  oven: { celsius: 175, mode: "still", ovenId: "kiosk-oven" },
  process: { method: "muffin" },
  notes: "",
  parts: [
    {
      id: "p",
      name: "Plain",
      share: 0.5,
      additions: [line("x", "walnut", 20)],
      kind: "muffin",
      vessel: { shape: "muffin", diameterMm: 70, heightMm: 35 },
      oven: { celsius: 190 },
    },
  ],
};
const nameOf = (id: string): string => id.replace(/-/g, " ");
const amount = (lineId: string, grams: number): Edit => ({ edit: "set-amount", lineId, grams: exact(grams), unit: "g" });

/** One of every kind of edit, each of which changes this formula. */
const everyEdit: Edit[] = [
  { edit: "rename", title: "Boat loaf" },
  { edit: "set-kind", kind: "bun" },
  { edit: "set-measures", measures: "au" },
  { edit: "set-notes", notes: "from the new sack" },
  { edit: "set-amount", lineId: "b", grams: { low: 230, mid: 240, high: 250 }, unit: "cup", filling: "dipped" },
  { edit: "set-ingredient", lineId: "b", ingredientId: "buttermilk" },
  { edit: "rename-line", lineId: "a", name: "Our sorghum" },
  { edit: "note-line", lineId: "a", note: "sifted" },
  { edit: "lock", lineId: "c", locked: true },
  { edit: "move", lineId: "a", by: 2 },
  { edit: "add", line: line("a", "salt", 4) },
  { edit: "remove", lineId: "d" },
  { edit: "place", lineId: "c", component: "ice" },
  { edit: "leave-out", lineId: "d", off: true },
  { edit: "add-component", component: { id: "ice", name: "Crumble", role: "topping" } },
  { edit: "set-component", componentId: "fill", set: { celsius: 5 }, clear: ["cookedG"] },
  { edit: "remove-component", componentId: "fill" },
  {
    edit: "read-again",
    measures: "uk",
    lines: [line("a", "sorghum-flour", 210)],
    pasted: { text: "210 g sorghum flour", measures: "uk" },
  },
  { edit: "scale", factor: 2 },
  { edit: "set-vessel", set: { heightMm: 80 }, clear: ["material"] },
  { edit: "set-oven", set: { celsius: 190, altitudeM: 800 }, clear: ["ovenId"] },
  { edit: "set-process", set: { restMinutes: 15 } },
  { edit: "what-if", change: { warmerK: 20, fuller: 1.2, material: "cast-iron", standMinutes: 30 } },
  {
    edit: "take-changes",
    title: "Less soda",
    changes: [
      { ingredientId: "soda", fromG: 3, toG: 2 },
      { ingredientId: "cream-of-tartar", fromG: 0, toG: 4 },
    ],
  },
  { edit: "take-pan", vessel: { shape: "round", diameterMm: 200, heightMm: 60 }, celsius: 165, factor: 0.8 },
  { edit: "take-version", formula: { ...formula, title: "Old" }, number: 1 },
  {
    edit: "add-part",
    part: { id: "p", name: "Half", share: 0.5, additions: [], kind: "bar", vessel: { shape: "round" }, oven: { celsius: 175 } },
  },
  { edit: "set-part", partId: "p", set: { share: 0.25 } },
  { edit: "remove-part", partId: "p" },
  { edit: "add-to-part", partId: "p", line: line("x", "cocoa-natural", 9) },
  { edit: "remove-from-part", partId: "p", lineId: "x" },
];

describe("edits", () => {
  test("there is one of every kind here", () => {
    const kinds = editSchema.options.map((option) => option.shape.edit.value).sort();
    expect(everyEdit.map(({ edit }) => edit).sort()).toEqual(kinds);
  });
  test.each(everyEdit.map((edit): [string, Edit] => [edit.edit, edit]))(
    "%s changes the formula, leaves the old one, passes the schema, is seen as a difference and has words",
    (_, edit) => {
      const before = structuredClone(formula);
      const after = applyEdit(formula, edit);
      expect(formula).toEqual(before);
      expect(editSchema.parse(edit)).toEqual(edit);
      expect(differencesOf(formula, after, nameOf)).not.toEqual([]);
      expect(differencesOf(after, after, nameOf)).toEqual([]);
      expect(describeEdit(edit, formula, nameOf).length).toBeGreaterThan(3);
      expect(faultsIn(after).size).toBe(0);
    },
  );
  test("what comes for something that goes stands in its place, in its own component", () => {
    const ids = formula.lines.map(({ ingredientId }) => ingredientId);
    const k = formula.lines.findIndex(({ grams, component }) => grams !== undefined && component === undefined);
    const gone = formula.lines[k];
    const swapped = applyEdit(formula, { edit: "take-changes", title: "", changes: [{ ingredientId: gone?.ingredientId ?? "", fromG: gone?.grams?.mid ?? 0, toG: 0 }, { ingredientId: "oat-milk", fromG: 0, toG: 90 }] }); // prettier-ignore
    expect(swapped.lines.map(({ ingredientId }) => ingredientId)).toEqual(ids.map((one, n) => (n === k ? "oat-milk" : one)));
  });
  test("ids stay unique whatever is added, in the formula and in its parts", () => {
    const twice = applyEdits(formula, [
      { edit: "add", line: line("a", "salt", 1) },
      { edit: "add", line: line("a", "salt", 2) },
      { edit: "add-to-part", partId: "p", line: line("x", "salt", 1) },
    ]);
    const ids = twice.lines.map(({ id }) => id);
    expect(new Set(ids).size).toBe(8);
    expect(twice.parts?.[0]?.additions.map(({ id }) => id)).toEqual(["x", "x-2"]);
  });
  test("an edit of what is gone changes nothing", () => {
    for (const edit of [amount("zz", 5), { edit: "remove", lineId: "zz" }, { edit: "move", lineId: "zz", by: 1 }] as Edit[])
      expect(differencesOf(formula, applyEdit(formula, edit), nameOf)).toEqual([]);
  });
  test("what an ingredient changes by is shared over its lines, and a new one stands last", () => {
    const { lines } = applyEdit(formula, {
      edit: "take-changes",
      title: "",
      changes: [
        { ingredientId: "kefir", fromG: 300, toG: 200 },
        { ingredientId: "salt", fromG: 0, toG: 3 },
      ],
    });
    expect(lines.map(({ ingredientId, grams }) => [ingredientId, Math.round(grams?.mid ?? 0)])).toEqual([
      ["sorghum-flour", 200],
      ["kefir", 160],
      ["soda", 3],
      ["kefir", 40],
      ["pear", 120],
      [undefined, 0],
      ["salt", 3],
    ]);
  });
  test("a change of a component leaves the batter alone, and the other way round", () => {
    const { lines } = applyEdit(applyEdit(formula, { edit: "add", line: { ...line("g", "kefir", 30), component: "ice" } }), {
      edit: "take-changes",
      title: "",
      changes: [{ ingredientId: "kefir", fromG: 30, toG: 12, component: "ice" }],
    });
    expect(lines.flatMap(({ ingredientId, grams }) => (ingredientId === "kefir" ? [grams?.mid] : []))).toEqual([240, 60, 12]);
  });
  test("a line moves up and down as it is seen: within its component, and over its edge into the next", () => {
    const at = (edits: Edit[]): string[] =>
      applyEdits(formula, edits).lines.map(({ id, component }) => `${id}${component ? `@${component}` : ""}`);
    expect(at([{ edit: "move", lineId: "d", by: 1 }])).toEqual(["a", "b", "c", "d@fill", "e@fill", "f@ice"]);
    expect(at([{ edit: "move", lineId: "e", by: 1 }])).toEqual(["a", "b", "c", "d", "e@ice", "f@ice"]);
    expect(at([{ edit: "move", lineId: "f", by: -1 }])).toEqual(["a", "b", "c", "d", "e@fill", "f@fill"]);
    expect(at([{ edit: "move", lineId: "a", by: -1 }])).toEqual(at([]));
    expect(at([{ edit: "place", lineId: "a", component: "ice", before: "f" }])).toEqual([
      "b",
      "c",
      "d",
      "e@fill",
      "a@ice",
      "f@ice",
    ]);
    expect(
      at([
        { edit: "move", lineId: "d", by: 1 },
        { edit: "move", lineId: "d", by: -1 },
      ]),
    ).toEqual(at([]));
  });
  test("a component that goes takes its lines along; what is open can be answered", () => {
    expect(applyEdit(formula, { edit: "remove-component", componentId: "ice" }).lines.map(({ id }) => id)).toEqual([
      "a",
      "b",
      "c",
      "d",
      "e",
    ]);
    const answered = applyEdits(formula, [
      { edit: "set-ingredient", lineId: "f", ingredientId: "icing-sugar" },
      { edit: "set-amount", lineId: "f", grams: exact(80), unit: "g" },
    ]).lines[5];
    expect(answered).toMatchObject({ ingredientId: "icing-sugar", name: "Sweet dust", grams: { mid: 80 }, component: "ice" });
  });
  test("a what-if stays within what an oven does, and iron is the only pan that goes in hot", () => {
    expect(withWhatIf(formula, { warmerK: 250 }).oven.celsius).toBe(320);
    expect(withWhatIf(formula, { warmerK: -250 }).oven.celsius).toBe(60);
    expect(withWhatIf(formula, { material: "cast-iron" }).vessel).toMatchObject({ material: "cast-iron", preheated: true });
    expect(withWhatIf(formula, { material: "glass" }).vessel.preheated).toBe(false);
    expect(withWhatIf(formula, {})).toEqual(formula);
  });
  test("a faulty field is named by its path with what would be right", () => {
    const faulty = applyEdits(formula, [
      { edit: "rename", title: "  " },
      { edit: "note-line", lineId: "a", note: "x".repeat(501) },
      { edit: "set-vessel", set: { pieces: 1.5 } },
    ]);
    expect([...faultsIn(faulty).keys()].sort()).toEqual(["lines.0.note", "title", "vessel.pieces"]);
    expect(faultsIn(faulty).get("title")).toMatch(/needs a name/);
  });
});

describe("history", () => {
  const do_ = (history: History, edit: Edit, at: number): History => edited(history, edit, at);
  test("one go at one field is one step of undo; a pause, or another field, makes another", () => {
    let h = begun(formula);
    for (const [grams, at] of [
      [2, 0],
      [25, 400],
      [250, 900],
    ] as const)
      h = do_(h, amount("b", grams), at);
    expect(h.steps.length).toBe(1);
    h = do_(h, amount("b", 260), 9000);
    h = do_(h, amount("d", 70), 9100);
    expect(h.steps.length).toBe(3);
    expect(current(undone(h)).lines[3]?.grams?.mid).toBe(60);
    expect(current(undone(undone(h))).lines[1]?.grams?.mid).toBe(250);
    expect(current(undone(undone(undone(h))))).toEqual(formula);
  });
  test("scaling typed digit by digit comes to the whole factor", () => {
    const h = do_(do_(begun(formula), { edit: "scale", factor: 0.5 }, 0), { edit: "scale", factor: 3 }, 500);
    expect([h.steps.length, current(h).lines[0]?.grams?.mid]).toEqual([1, 300]);
    expect(current(undone(h))).toEqual(formula);
  });
  test("a save ends a go, and undo goes back over it; then what is unsaved cannot be told by edits", () => {
    let h = saved(do_(begun(formula), amount("b", 250), 0));
    expect(unsaved(h)).toEqual([]);
    h = do_(h, amount("b", 260), 100);
    expect(unsaved(h)?.length).toBe(1);
    expect(unsaved(undone(undone(h)))).toBeNull();
  });
  test("what two sides changed is both in the formula after one is put on the other", () => {
    const mine = do_(do_(begun(formula), amount("b", 250), 0), { edit: "rename", title: "Mine" }, 10);
    const theirs = applyEdit(formula, { edit: "set-oven", set: { celsius: 160 } });
    const both = rebased(mine, theirs);
    expect(both && [current(both).title, current(both).oven.celsius, current(both).lines[1]?.grams?.mid]).toEqual([
      "Mine",
      160,
      250,
    ]);
  });
  test("any run of edits comes back from its steps, and undo all the way is the beginning", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom(...everyEdit), fc.nat(5000)), { maxLength: 30 }), (run) => {
        let at = 0;
        let h = begun(formula);
        for (const [edit, pause] of run) h = do_(h, edit, (at += pause));
        const kept = JSON.parse(JSON.stringify({ root: h.root, steps: h.steps })) as Pick<History, "root" | "steps">;
        expect(current(replayed(kept.root, kept.steps, 0))).toEqual(current(h));
        let back = h;
        for (let n = 0; n < run.length; n++) back = undone(back);
        expect(current(back)).toEqual(formula);
      }),
      { numRuns: 60 },
    );
  });
  test("more than two hundred steps let go of the oldest, not of the newest", () => {
    let h = begun(formula);
    for (let n = 0; n < 230; n++) h = do_(h, amount(n % 2 ? "b" : "d", n + 1), n * 10_000);
    expect([h.steps.length, current(h).lines[1]?.grams?.mid, unsaved(h)]).toEqual([200, 230, null]);
  });
  test("a reason tells each field once, with where it began and ended", () => {
    let h = begun(formula);
    for (const [grams, at] of [
      [250, 0],
      [280, 9000],
    ] as const)
      h = do_(h, amount("b", grams), at);
    h = do_(h, { edit: "lock", lineId: "c", locked: true }, 20_000);
    expect(reasonOf(h, formula, nameOf)).toBe("kefir 240 g → 280 g; soda locked");
    const long = everyEdit.reduce((all, edit, n) => do_(all, edit, n * 10_000), begun(formula));
    expect(reasonOf(long, formula, nameOf)).toMatch(/; and \d+ more$/);
    expect(fieldOf({ edit: "remove", lineId: "a" })).toBeNull();
  });
});

test.each<[string, (f: Formula) => Formula]>([
  ["Order of lines", (f) => applyEdit(f, { edit: "move", lineId: "a", by: 1 })],
  ["Cups and spoons", (f) => ({ ...f, measures: "uk" })],
  ["Oven: which oven", (f) => ({ ...f, oven: { celsius: 175, mode: "still" } })],
  ["Oven: metres above the sea", (f) => ({ ...f, oven: { ...f.oven, altitudeM: 900 } })],
  ["kefir (1)", (f) => applyEdit(f, { edit: "set-amount", lineId: "b", grams: { low: 200, mid: 240, high: 280 } })],
  ["sorghum flour, locked", (f) => applyEdit(f, { edit: "lock", lineId: "a", locked: true })],
  ["sorghum flour, note", (f) => applyEdit(f, { edit: "note-line", lineId: "a", note: "fresh" })],
  ["Part “Plain”: cocoa", (f) => applyEdit(f, { edit: "add-to-part", partId: "p", line: line("y", "cocoa", 8) })],
  ["kefir (2), left out", (f) => applyEdit(f, { edit: "leave-out", lineId: "d", off: true })],
  ["soda, component", (f) => ({ ...f, lines: f.lines.map((l) => (l.id === "c" ? { ...l, component: "ice" } : l)) })],
  [
    "Component “Pear filling”: once cooked, g",
    (f) => applyEdit(f, { edit: "set-component", componentId: "fill", set: { cookedG: 95 } }),
  ],
  ["Order of components", (f) => ({ ...f, components: [...(f.components ?? [])].reverse() })],
  ["Sweet dust", (f) => applyEdit(f, { edit: "set-amount", lineId: "f", grams: exact(5), unit: "g" })],
  ["What the recipe says", (f) => ({ ...f, said: { vessel: f.vessel, panNamed: true, batterG: 503 } })],
  ["Text as pasted", (f) => ({ ...f, pasted: { text: "a loaf", measures: "uk" } })],
  ["Notes", (f) => ({ ...f, notes: "x".repeat(90) + "1" })],
])("a difference is any difference: %s", (what, change) => {
  const found = differencesOf(formula, change(formula), nameOf);
  expect(found.map((d) => d.what)).toEqual([what]);
  expect(found[0]?.before).not.toBe(found[0]?.after);
});
