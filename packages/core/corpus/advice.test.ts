import { analyse, balance, builtInShelf, findIngredient, swap } from "../src/index";
import {
  type Adviser,
  type BalanceCase,
  type FindingCase,
  judgeBalance,
  judgeFinding,
  judgeSwap,
  type SwapCase,
} from "./advice-judge";
import { askedSwaps, slippedBalances } from "./slips-and-swaps";
import balances from "./balance.json";
import findings from "./findings.json";
import swaps from "./swaps.json";

type Analysable = Parameters<typeof analyse>[0];
const core: Adviser = {
  analyse: async (body) => analyse(body as Analysable),
  balance: async (body) => balance(body as Parameters<typeof balance>[0], body as Parameters<typeof balance>[1]),
  swap: async (body) => swap(body as Parameters<typeof swap>[0], body as Parameters<typeof swap>[1]),
};
const named = <T extends { id: string }>(cases: unknown): [string, T][] => (cases as T[]).map((one) => [one.id, one]);

describe("what a good baker would say, and leave unsaid", () => {
  test.each(named<FindingCase>(findings))("%s", async (_, one) => {
    expect(await judgeFinding(one, core, (name) => findIngredient(name, builtInShelf)?.ingredient.id)).toBeNull();
  });
});
describe("what a good baker would mend, and leave alone", () => {
  test.each(named<BalanceCase>([...balances, ...slippedBalances]))("%s", async (_, one) => {
    expect(await judgeBalance(one, core)).toBeNull();
  });
});
describe("what a good baker would swap", () => {
  test.each(named<SwapCase>([...swaps, ...askedSwaps]))("%s", async (_, one) => {
    expect(await judgeSwap(one, core)).toBeNull();
  });
});
test("a judge can fail: a sound formula called faulty, a fault called sound, a swap that never was", async () => {
  const [sound] = balances as unknown as BalanceCase[];
  const [slip] = (findings as unknown as FindingCase[]).filter(({ want }) => want.has);
  if (!sound || !slip) throw new Error("The corpus is empty.");
  const id = (name: string) => findIngredient(name, builtInShelf)?.ingredient.id;
  expect(await judgeBalance({ ...sound, want: { clears: ["soda-unmet"] } }, core)).toMatch(/0 proposals/);
  expect(await judgeFinding({ ...slip, want: { worst: "none" } }, core, id)).toMatch(/is a /);
  const [one] = swaps as unknown as SwapCase[];
  expect(one && (await judgeSwap({ ...one, want: { some: { "^water$": [900, 901] } } }, core))).toMatch(/wanted 900/);
});
