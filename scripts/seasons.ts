/**
 * How far a season of eight bakes comes in made-up kitchens, each with a truth of its own that nobody is told: an offset, slopes, bends, pairs and the
 * scatter of single bakes and of days laid over the bake in the computer. Beside it what a careful baker reaches who changes one thing at a time, with
 * the same number of bakes. `npm run seasons [-- kitchens]`. The truths are drawn from another family than the model's (a plane, squares and products,
 * not a Gaussian process), of the sizes that the log's own doubts name; this shows that the method learns, not that kitchens are so.
 */
import { bareKitchen, normalFrom, type Season, seasonSchema, seeded } from "@uprise/core";
import { askedQualities, type Baked, baker, sieveOf } from "@uprise/core/src/season/bakes";
import { beliefsOf, type Made } from "@uprise/core/src/season/beliefs";
import { firstBakes } from "@uprise/core/src/season/first-bakes";
import { bestOf, nextBake } from "@uprise/core/src/season/next-bake";
import { leanings } from "@uprise/core/src/season/baked-qualities";
import { qualityOf } from "@uprise/core/src/season/qualities";
import { seasonNow } from "@uprise/core/src/season/season";
import { candidatesOf, numberAt } from "@uprise/core/src/season/space";
import { demoFormulas } from "../apps/server/src/demo/formulas";

const KITCHENS = Number(process.argv[2] ?? 200);
const BAKES = 8;
const WITHIN = 0.05;

const formulaOf = (id: string) => demoFormulas.find((one) => one.id === id)?.formula;
const line = (lineId: string, name: string, low: number, high: number) => ({ kind: "amount", id: lineId, name, lineId, low, high });
const oven = (low: number, high: number) => ({ kind: "oven", id: "oven", low, high });
const share = (lineId: string, name: string, low: number, high: number) => ({ ...line(lineId, name, low, high), kind: "share" });
const season = (formulaId: string, title: string, quality: string, wish: "more" | "less", factors: unknown[]): Season =>
  seasonSchema.parse({ title, formulaId, formula: formulaOf(formulaId), goals: [{ quality, wish }], factors, bakes: BAKES, blocks: { size: 2, by: "day" }, seed: 11, runs: [], notes: "" }); // prettier-ignore

const seasons: Season[] = [
  season("pear-loaf", "a taller pear loaf", "height", "more", [line("l5", "Kefir", 200, 260), line("l9", "Pear", 120, 220), line("l4", "Xanthan", 1.5, 3.5), oven(165, 190)]),
  season("beet-muffins", "moister muffins", "moistness", "more", [line("l6", "Beetroot", 160, 220), line("l9", "Oil", 55, 85), oven(180, 200)]),
  season("pear-loaf", "a better blend", "score", "more", [share("l1", "Buckwheat", 35, 65), share("l2", "Sweet rice", 15, 45), share("l3", "Tapioca", 10, 35), line("l8", "Sugar", 85, 120)]),
]; // prettier-ignore

interface Truth {
  of: (baked: Baked) => number;
  noise: number;
  day: number;
}

/** A kitchen: what the computer says plus a plane, squares and products, drawn; tasted values stay between 0 and 1. */
function kitchenOf(asked: Season, present: Baked, sound: readonly Baked[], random: () => number): Truth {
  const normal = normalFrom(random);
  const quality = qualityOf(asked.goals[0]?.quality ?? "");
  const size = quality.relative ? Math.abs(present.means.get(quality.id) ?? 1) : 1;
  const { offset, slope, bend, noise } = quality.doubt;
  const strong = Math.exp(0.5 * normal());
  const n = present.x.length;
  const [by, plane, lean] = [offset * size * normal(), present.x.map(() => slope * size * strong * normal()), slope * strong * normal()];
  const bends = present.x.map((_, i) => present.x.map((__, j) => (j < i ? 0 : (bend * size * strong * normal()) / (i === j ? 1 : Math.sqrt(n)))));
  const all = sound.map((one) => one.leans.get(quality.id) ?? 0);
  const mean = all.reduce((a, b) => a + b, 0) / all.length;
  const sd = Math.sqrt(all.reduce((sum, one) => sum + (one - mean) ** 2, 0) / all.length) || 1;
  const scatter = noise * size * Math.exp(0.3 * normal());
  return {
    of: (baked) => {
      const curved = baked.x.reduce((sum, a, i) => sum + baked.x.reduce((row, b, j) => row + (bends[i]?.[j] ?? 0) * a * b, 0), 0);
      const straight = baked.x.reduce((sum, a, i) => sum + (plane[i] ?? 0) * a, 0);
      const z = leanings[quality.id] ? lean * (((baked.leans.get(quality.id) ?? mean) - mean) / sd) : 0;
      const value = (baked.means.get(quality.id) ?? quality.usual) + by + straight + curved + z;
      return quality.how === "tasted" ? Math.min(1, Math.max(0, value)) : value;
    },
    noise: scatter,
    day: 0.5 * scatter,
  };
} // prettier-ignore

interface Result {
  reached: number;
  best: number;
  present: number;
  inside: number;
  asked: number;
}

for (const asked of seasons) {
  const bakes = baker(asked, bareKitchen, []);
  const begun = performance.now();
  const points = candidatesOf(asked, 80, asked.seed);
  const sieve = sieveOf(asked, bakes);
  const first = firstBakes(asked, points, sieve, []);
  const designing = performance.now() - begun;
  const forDesign = sieve.asked();
  for (const settings of points) sieve.at(settings);
  const { present } = sieve;
  const sound = sieve.sound();
  const [quality] = askedQualities(asked);
  if (!quality) continue;
  const side = asked.goals[0]?.wish === "less" ? -1 : 1;
  const scale = new Map([[quality.id, quality.least]]);
  const [ours, hand]: [Result[], Result[]] = [[], []];
  for (let k = 0; k < KITCHENS; k++) {
    const random = seeded(9000 + k);
    const normal = normalFrom(random);
    const truth = kitchenOf(asked, present, sound, random);
    const days = new Map<number, number>();
    const measured = (baked: Baked, n: number): number => {
      const day = Math.floor(n / 2);
      if (!days.has(day)) days.set(day, truth.day * normal());
      return truth.of(baked) + (days.get(day) ?? 0) + truth.noise * normal();
    };
    const log: Made[] = [];
    const write = (baked: Baked): void => {
      const n = log.length;
      const value = measured(baked, n);
      log.push({ id: `t${n}`, baked, values: new Map([[quality.id, value]]), block: String(Math.floor(n / 2)) });
    };
    for (const run of first.runs) write(bakes.at(run.settings));
    while (log.length < BAKES) {
      const beliefs = beliefsOf([quality], log, [], sound, present);
      const next = nextBake(asked, scale, sound, log.map((one) => one.baked), beliefs.plain); // prettier-ignore
      if (!next) break;
      write(next.baked);
    }
    const beliefs = beliefsOf([quality], log, [], sound, present);
    // As the page says it: the best of what was baked, by what is known of it.
    const chosen = bestOf(asked, scale, log.map((one) => one.baked), beliefs.plain) ?? present; // prettier-ignore
    const values = sound.map((baked) => side * truth.of(baked));
    const inside = sound.filter((baked) => {
      const { low, high } = beliefs.of(baked, quality.id);
      const value = truth.of(baked);
      return value >= low && value <= high;
    }).length;
    const best = Math.max(...values);
    ours.push({ reached: side * truth.of(chosen), best, present: side * truth.of(present), inside, asked: sound.length });

    // By hand: the present bake, then one thing at a time to either end; what came out better is kept.
    let [kept, value, n] = [present, side * measured(present, 0), 1];
    for (const turn of asked.factors.flatMap((factor) => [1, -1].map((end) => ({ factor, end })))) {
      if (n >= BAKES) break;
      const others = asked.factors.filter((other) => other !== turn.factor);
      const tried = sound
        .filter((baked) => baked !== kept)
        .map((baked) => {
          const { low = 0, high = 1 } = turn.factor;
          const moved = turn.end * ((2 * (numberAt(baked.settings, turn.factor) - low)) / (high - low) - 1);
          const strayed = others.reduce((sum, other) => sum + Math.abs(numberAt(baked.settings, other) - numberAt(kept.settings, other)) / ((other.high ?? 1) - (other.low ?? 0)) / (turn.factor.kind === "share" && other.kind === "share" ? 4 : 1), 0); // prettier-ignore
          return { baked, worth: moved - 6 * strayed };
        })
        .sort((a, b) => b.worth - a.worth)[0]?.baked;
      if (!tried) continue;
      const came = side * measured(tried, n++);
      if (came > value) [kept, value] = [tried, came];
    }
    hand.push({ reached: side * truth.of(kept), best, present: side * truth.of(present), inside: 0, asked: 0 });
  }
  const share = (results: Result[], is: (one: Result) => boolean): string =>
    `${Math.round((100 * results.filter(is).length) / results.length)} %`;
  const near = ({ reached, best }: Result): boolean => reached >= best - WITHIN * Math.abs(best);
  const gained = (results: Result[]): string => `${Math.round((100 * results.reduce((sum, { reached, present: from }) => sum + reached - from, 0)) / results.reduce((sum, { best, present: from }) => sum + best - from, 0))} %`; // prettier-ignore
  const coverage = ours.reduce((sum, one) => sum + one.inside, 0) / ours.reduce((sum, one) => sum + one.asked, 0);
  console.log(
    `${asked.title}: ${asked.factors.length} factors, ${sound.length} sound points (${sieve.asked() - sound.length} not), ${first.runs.length} first bakes chosen in ${Math.round(designing)} ms with ${forDesign} of them baked
  after ${BAKES} bakes within 5 % of the best that could be had: ${share(ours, near)}; one at a time by hand ${share(hand, near)}; as it was ${share(ours, ({ present: from, best }) => from >= best - WITHIN * Math.abs(best))}
  of what could be gained it gained ${gained(ours)}; by hand ${gained(hand)}
  truth inside the 90 % range: ${Math.round(1000 * coverage) / 10} %`,
  );
}

/** The design of twelve runs over five factors, asked for as the page asks (aim: 1 s). */
const five = seasonSchema.parse({ ...season("pear-loaf", "twelve over five", "height", "more", [line("l5", "Kefir", 200, 260), line("l9", "Pear", 120, 220), line("l4", "Xanthan", 1.5, 3.5), line("l8", "Sugar", 85, 120), oven(165, 190)]), bakes: 20 }); // prettier-ignore
const took = Array.from({ length: 5 }, () => {
  const begun = performance.now();
  const { proposed, candidates } = seasonNow({ season: five, trials: [], tastings: [], packets: [] }, bareKitchen);
  return { ms: performance.now() - begun, runs: proposed.length, candidates };
}).sort((a, b) => a.ms - b.ms);
console.log(`${took[2]?.runs} runs over ${five.factors.length} factors out of ${took[2]?.candidates}: ${Math.round(took[2]?.ms ?? 0)} ms, median of five`); // prettier-ignore
