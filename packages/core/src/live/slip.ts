import { z } from "zod";
import { balance } from "../balance/balance";
import { allergensOf, linesAfter, type Proposal, proposalSchema, proposedLine, readingsOf } from "../balance/proposal";
import { analyse } from "../balance/analyse";
import type { Analysis } from "../balance/readings";
import { CoreError } from "../errors";
import { isWeighed, type WeighedLine } from "../formula/components";
import { type Opened } from "../formula/open";
import { gramsOf } from "../formula/components";
import { gramsText } from "../measure/amounts";
import { builtInShelf } from "../pantry/catalogue";
import type { Shelf } from "../pantry/shelf";
import type { Slip } from "./events-schema";

export const slipAnswerSchema = z.object({
  /** What it does, the gravest first. */
  effects: z.array(z.object({ what: z.string(), from: z.string(), to: z.string(), words: z.string() })),
  /** Whether it is worth doing anything. */
  matters: z.boolean(),
  remedies: z.array(proposalSchema.extend({ id: z.string() })),
});
export type SlipAnswer = z.infer<typeof slipAnswerSchema>;

/** A larger batch than this does not fit what stands ready. */
const MOST_OF_THE_REST = 1.6;
const MOST_REMEDIES = 4;

type Grams = Map<string, number>;

const gramsIn = (lines: readonly WeighedLine[]): Grams => {
  const out: Grams = new Map();
  for (const line of lines) out.set(line.ingredientId, (out.get(line.ingredientId) ?? 0) + gramsOf(line));
  return out;
};

/** The lines of the formula with some ingredients set to other amounts, as an input. */
function withGrams(input: Opened, set: Grams): Opened {
  const weighed = input.lines.filter(isWeighed);
  return { ...input, lines: [...linesAfter(weighed, set), ...input.lines.filter((line) => !isWeighed(line))] };
}

const round = (value: number, step: number): number => Math.round(value / step) * step;

/** A batter at the counter, baked: what is told of a slip are the bench's own numbers. */
const bakedReadings = (input: Opened, shelf: Shelf): Analysis => analyse(input, shelf, { frames: 0, spread: 0 }, "plain");

/** What a band is of, as one says it, and its unit. The gas has a sentence of its own. */
const bandWords: Partial<Record<Analysis["bands"][number]["name"], string>> = {
  waterPercent: "Water on the flour",
  fatPercent: "Fat on the flour",
  sugarPercent: "Sugar on the flour",
  eggPercent: "Egg on the flour",
  saltPercent: "Salt on the flour",
};

function effectsOf(before: Analysis, after: Analysis): SlipAnswer["effects"] {
  const out: SlipAnswer["effects"] = [];
  const tell = (what: string, from: string, to: string, words: string): void =>
    void (from !== to && out.push({ what, from, to, words }));
  const known = new Set(before.findings.map(({ id }) => id));
  for (const finding of after.findings)
    if (!known.has(finding.id) && finding.severity !== "note")
      out.push({ what: finding.id, from: "", to: finding.severity, words: finding.message });
  tell("lift", before.lift.verdict, after.lift.verdict, `Its lift goes from ${before.lift.verdict.replace(/-/g, " ")} to ${after.lift.verdict.replace(/-/g, " ")}.`); // prettier-ignore
  const [gasWas, gasIs] = [round(before.lift.gasMlPer100g.mid, 5), round(after.lift.gasMlPer100g.mid, 5)];
  if (Math.abs(gasIs - gasWas) > 0.08 * gasWas)
    tell("gas", `${gasWas} mL`, `${gasIs} mL`, `Gas for each 100 g goes from ${gasWas} to ${gasIs} mL.`);
  const [phWas, phIs] = [before.lift.ph.mid.toFixed(1), after.lift.ph.mid.toFixed(1)];
  if (Math.abs(before.lift.ph.mid - after.lift.ph.mid) >= 0.15)
    tell("ph", phWas, phIs, `The crumb's pH goes from ${phWas} to ${phIs}.`);
  tell("body", before.body.consistency, after.body.consistency, `The batter goes from ${before.body.consistency.replace(/-/g, " ")} to ${after.body.consistency.replace(/-/g, " ")}.`); // prettier-ignore
  const [was, is] = [Math.round(before.bake?.minutes.mid ?? 0), Math.round(after.bake?.minutes.mid ?? 0)];
  if (was > 0 && is > 0 && Math.abs(is - was) >= 2)
    tell("minutes", `${was} min`, `${is} min`, `It bakes ${is} min in place of ${was}.`);
  const meantAt = new Map(before.bands.map(({ name, value }) => [name, value]));
  for (const { name, value, low, high } of after.bands) {
    const meant = meantAt.get(name) ?? value;
    const word = bandWords[name];
    if (word && Math.abs(value - meant) > 0.3 * (high - low) && (value < low || value > high))
      tell(name, meant.toPrecision(2), value.toPrecision(2), `${word} goes from ${Number(meant.toPrecision(2))} to ${Number(value.toPrecision(2))} %; ${Number(low.toPrecision(2))} to ${Number(high.toPrecision(2))} % is usual.`); // prettier-ignore
  }
  if (before.fill.overflow !== after.fill.overflow && after.fill.overflow) out.push({ what: "fill", from: "fits", to: "runs over", words: "It would rise over the rim." }); // prettier-ignore
  return out;
}

/** How far a formula stands from the one that was meant: what is found anew, and how far its readings moved. */
function distance(meant: Analysis, is: Analysis): number {
  const known = new Set(meant.findings.map(({ id }) => id));
  const found = is.findings.filter(({ id, severity }) => severity !== "note" && !known.has(id)).length;
  const bands = new Map(meant.bands.map((band) => [band.name, band]));
  const moved = is.bands.reduce((sum, { name, value, low, high }) => {
    const was = bands.get(name)?.value ?? value;
    return sum + Math.min(1, Math.abs(value - was) / Math.max(1e-6, high - low));
  }, 0);
  return 10 * found + moved + 2 * Math.abs(is.lift.ph.mid - meant.lift.ph.mid);
}

/**
 * What a slip at the counter does, and what is still possible: take it out, add what is missing, more of the rest, something else beside it, or
 * leave it. Each was analysed again, and none is offered that leaves it worse than it is. Grams. Throws as `readings`, `unknown-ingredient`.
 */
export function slipAnswer(input: Opened, slip: Slip, shelf: Shelf = builtInShelf): SlipAnswer {
  const weighed = input.lines.filter(isWeighed);
  const meantG = gramsIn(weighed);
  const meantOf = meantG.get(slip.ingredientId);
  const ingredient = shelf.get(slip.ingredientId);
  if (meantOf === undefined || !ingredient)
    throw new CoreError("unknown-ingredient", `The formula has no "${slip.ingredientId}"; one of ${[...meantG.keys()].join(", ")} would be right.`, "slip.ingredientId"); // prettier-ignore
  const put: Grams = new Map();
  if (slip.what === "amount") put.set(slip.ingredientId, slip.grams);
  else {
    put.set(slip.ingredientId, 0);
    if (slip.what === "swapped") {
      if (!shelf.get(slip.with))
        throw new CoreError("unknown-ingredient", `Nothing on the shelf has the id "${slip.with}".`, "slip.with");
      put.set(slip.with, (meantG.get(slip.with) ?? 0) + (slip.grams ?? meantOf));
    }
  }
  const meant = bakedReadings(input, shelf);
  const inBowl = withGrams(input, put);
  const now = bakedReadings(inBowl, shelf);
  const bowlG = gramsIn(inBowl.lines.filter(isWeighed));
  const effects = effectsOf(meant, now);
  const worse = distance(meant, now);
  const remedies: (Proposal & { id: string; worth: number })[] = [];
  const offer = (id: string, title: string, why: string, after: Opened): void => {
    try {
      const then = bakedReadings(after, shelf);
      const worth = distance(meant, then);
      // What leaves it where it is, or worse, is no remedy.
      if (id !== "leave" && worth > worse - 0.02) return;
      const afterG = gramsIn(after.lines.filter(isWeighed));
      const ids = new Set([...bowlG.keys(), ...afterG.keys()]);
      const changes = [...ids].flatMap((one) => {
        const [fromG, toG] = [bowlG.get(one) ?? 0, afterG.get(one) ?? 0];
        return Math.abs(fromG - toG) > 0.01 ? [{ ingredientId: one, fromG, toG }] : [];
      });
      const [had, has] = [allergensOf(inBowl.lines, shelf), allergensOf(after.lines, shelf)];
      remedies.push({ id, title, why, changes, lines: after.lines.map(proposedLine), before: readingsOf(now), after: readingsOf(then), allergensAdded: [...has].filter((one) => !had.has(one)), allergensRemoved: [...had].filter((one) => !has.has(one)), worth }); // prettier-ignore
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
    }
  };
  const name = ingredient.name.toLowerCase();
  const mixed = slip.mixed === true;
  const over = slip.what === "amount" ? slip.grams - meantOf : 0;
  if (slip.what === "swapped" && !mixed)
    offer("take-out", `Take it out and weigh ${gramsText(meantOf)} ${name}`, "Nothing is stirred in yet.", input);
  const pours = ingredient.per100g.water > 60;
  if (over > 0 && !mixed)
    offer("take-out", pours ? `Pour ${gramsText(over)} ${name} off` : `Take ${gramsText(over)} ${name} out`, pours ? "Nothing is stirred into it yet." : "It lies on top and is not stirred in yet.", input); // prettier-ignore
  if (over < 0) offer("add", `Add ${gramsText(-over)} ${name}`, "It is what is missing.", input);
  if (slip.what === "forgotten") offer("add", `Add ${gramsText(meantOf)} ${name} now`, mixed ? "Stir it in with as few strokes as it takes; what is lost is some gas." : "It goes in as if nothing had been.", input); // prettier-ignore
  const ratio = slip.what === "amount" ? slip.grams / meantOf : 1;
  if (ratio > 1.001 && ratio <= MOST_OF_THE_REST)
    offer("more-of-the-rest", `Make ${ratio.toFixed(2)} times the batch`, `Everything else in the same measure: ${gramsText(meant.batch.massG * ratio)} in place of ${gramsText(meant.batch.massG)}. Look whether the pan takes it.`, withGrams(input, new Map([...meantG].map(([id, g]) => [id, g * ratio])))); // prettier-ignore
  try {
    for (const [k, proposal] of balance(inBowl, { locked: [slip.ingredientId] }, shelf).proposals.entries()) {
      // What is in the bowl cannot be made less.
      if (proposal.changes.some(({ fromG, toG, component }) => toG < fromG - 0.01 || component !== undefined)) continue;
      offer(`beside-${k + 1}`, proposal.title, proposal.why, withGrams(inBowl, new Map(proposal.changes.map(({ ingredientId, toG }) => [ingredientId, toG])))); // prettier-ignore
    }
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
  }
  const best = remedies.sort((a, b) => a.worth - b.worth || a.changes.length - b.changes.length).slice(0, MOST_REMEDIES);
  offer("leave", "Leave it", effects.length === 0 ? "Nobody will tell the difference." : "Bake it as it is, and know why.", inBowl);
  const leave = remedies.find(({ id }) => id === "leave");
  const matters = effects.length > 0 || worse > 0.5;
  const listed = [...best, ...(leave ? [leave] : [])];
  // Where it matters little, leaving it comes first.
  if (!matters) listed.sort((a, b) => Number(b.id === "leave") - Number(a.id === "leave"));
  return { effects, matters, remedies: listed.map(({ worth: _, ...remedy }) => remedy) };
}
