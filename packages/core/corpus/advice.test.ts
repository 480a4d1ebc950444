import { balance, type Kind, readings, swap } from "../src/index";
import corpus from "./advice.json";

interface Case {
  id: string;
  kind: string;
  lines: Record<string, number>;
  clears?: string[];
}
const sheet = ({ kind, lines }: Case) => ({
  kind: kind as Kind,
  lines: Object.entries(lines).map(([ingredientId, grams]) => ({ ingredientId, grams })),
});
const all = [...corpus.sound, ...corpus.faulty] as unknown as Case[];
const find = (id: string): Case => all.find((one) => one.id === id) as Case;
const grave = (input: ReturnType<typeof sheet>): string[] =>
  readings(input).findings.flatMap(({ id, severity }) => (severity === "note" ? [] : [id]));

describe("what a good baker would leave alone", () => {
  test.each((corpus.sound as unknown as Case[]).map((one): [string, Case] => [one.id, one]))("%s gets silence", (_, one) => {
    expect(grave(sheet(one))).toEqual([]);
    expect(balance(sheet(one))).toEqual({ proposals: [] });
  });
});

describe("what a good baker would mend", () => {
  test.each((corpus.faulty as unknown as Case[]).map((one): [string, Case] => [one.id, one]))("%s", (_, one) => {
    const input = sheet(one);
    const before = grave(input);
    const found = readings(input).findings.filter(({ id }) => one.clears?.includes(id));
    expect(found.map(({ id }) => id)).toEqual(one.clears);
    // Every fault that is found has a way out that was proven, and balance ends it without a new one.
    for (const finding of found) expect(finding.fix).toMatch(/\d|out/);
    const { proposals } = balance(input);
    expect(proposals.length).toBeGreaterThan(0);
    const after = grave({ ...input, lines: proposals[0]?.lines as typeof input.lines });
    for (const id of one.clears ?? []) expect(after).not.toContain(id);
    expect(after.filter((id) => !before.includes(id))).toEqual([]);
  });
});

describe("what a good baker would swap", () => {
  test.each(corpus.swaps.map((one): [string, (typeof corpus.swaps)[number]] => [one.id, one]))("%s", (_, one) => {
    const input = sheet(find(one.of));
    const [proposal] = swap(input, { replace: one.replace, with: one.with }).proposals;
    const change = proposal?.changes.find(({ ingredientId }) => ingredientId === one.with);
    const range = one.grams ?? one.more ?? [0, 0];
    const grams = (change?.toG ?? 0) - (change?.fromG ?? 0);
    expect(grams).toBeGreaterThanOrEqual(range[0] ?? 0);
    expect(grams).toBeLessThanOrEqual(range[1] ?? 0);
    expect(proposal?.lines.some(({ ingredientId, grams: g }) => ingredientId === one.replace || g === 0)).toBe(false);
    if (one.lost) expect(proposal?.lost?.length).toBeGreaterThan(0);
    if (one.acid) expect(proposal?.changes.some(({ ingredientId }) => /vinegar|lemon|tartar/.test(ingredientId))).toBe(true);
    // At most three neighbours beside what goes and what comes, and no caution that was not there.
    expect(proposal?.changes.length).toBeLessThanOrEqual(5);
    const before = grave(input);
    expect(grave({ ...input, lines: proposal?.lines as typeof input.lines }).filter((id) => !before.includes(id))).toEqual([]);
  });
});
