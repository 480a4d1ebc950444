import { CoreError } from "../errors";
import type { Opened } from "../formula/open";
import type { Shelf } from "../pantry/shelf";
import { type Appearance, appearanceOf, beyond } from "./appearance";
import type { Cause } from "./causes";
import { cluesOf } from "./clues";
import { deviated } from "./deviation";
import { bakeOf, type Outcome } from "./outcome";
import { type OfferedRemedy, remedyFor } from "./remedy";
import type { SymptomId } from "./symptoms";

/** A complaint that the simulation shows in a lesser degree is not its to judge; one that a remedy leaves more of than this share is not mended. */
const LEAST_SHOWN = 0.8;
const MENDED = 0.9;

/** What a cause does to this very bake. */
export interface Effect {
  appearance: Appearance;
  outcome: Outcome | null;
}

/** The bake as planned, as it was really made and as long as it really was, and what each cause would make of it. */
export class Bench {
  readonly planned: Outcome;
  readonly asBaked: Outcome;
  /** What the slips on record show by themselves, beside the formula as written. */
  readonly shown: Appearance;
  private readonly effects = new Map<string, Effect>();
  private readonly remedies = new Map<string, OfferedRemedy>();
  private bare: Appearance | null = null;
  constructor(
    written: Opened,
    private readonly input: Opened,
    private readonly shelf: Shelf,
    private readonly minutes: number | undefined,
  ) {
    this.planned = bakeOf(written, shelf, undefined);
    const out = minutes ?? (input === written ? undefined : this.planned.simulation.minutes);
    this.asBaked = out === undefined ? this.planned : bakeOf(input, shelf, out);
    this.shown = input === written ? {} : beyond(this.without(), this.looks(minutes === undefined ? this.planned : bakeOf(written, shelf, minutes)));
  } // prettier-ignore
  /** A cause in this bake: what would be seen beyond what is seen without it. */
  effectOf(cause: Cause): Effect {
    const there = this.effects.get(cause.id);
    if (there) return there;
    const found = this.computed(cause) ?? { appearance: {}, outcome: null };
    this.effects.set(cause.id, found);
    return found;
  }
  /** What would mend it, baked again. */
  remedyOf(cause: Cause): OfferedRemedy {
    const there = this.remedies.get(cause.id);
    if (there) return there;
    const found = remedyFor(cause, this.input, this.planned, this.shelf);
    this.remedies.set(cause.id, found);
    return found;
  }
  /** Whether a changed formula, with the same thing gone wrong in it, shows less of what was complained of. What the simulation does not show is the table's word. */
  mends(cause: Cause, after: Opened, complaints: readonly SymptomId[]): boolean {
    const shown = (of: Appearance): number => complaints.reduce((sum, id) => sum + (of[id] ?? 0), 0);
    const before = shown(this.effectOf(cause).appearance);
    // Of what is left out altogether nothing can be changed but that.
    if (!cause.deviation || cause.deviation.by === 0 || before < LEAST_SHOWN) return true;
    const key = `mended ${cause.id}`;
    let then = this.effects.get(key);
    if (!then) {
      try {
        const made = deviated(after, cause.deviation, this.shelf, this.planned.simulation.minutes);
        const outcome = made && bakeOf(made.input, this.shelf);
        then = { appearance: outcome ? beyond(this.looks(outcome), this.without()) : {}, outcome };
      } catch (error) {
        // What cannot be baked any more mends nothing.
        if (error instanceof CoreError) return false;
        throw error;
      }
      this.effects.set(key, then);
    }
    return shown(then.appearance) < MENDED * before;
  }
  private computed({ deviation }: Cause): Effect | null {
    if (!deviation) return null;
    const planned = this.planned.simulation.minutes;
    const baked = this.minutes ?? planned;
    const isTime = deviation.what === "minutes";
    const made = deviated(this.input, deviation, this.shelf, planned);
    if (!made) return null;
    // Whoever took it out at another minute did just that; everything else went otherwise for as long as it was baked.
    const isOther = Math.abs(baked / planned - 1) > 0.04 && deviation.by < 1 === baked < planned;
    const minutes = isTime ? (isOther ? baked : planned * made.minutes) : baked;
    try {
      const outcome = bakeOf(made.input, this.shelf, minutes);
      return { appearance: beyond(this.looks(outcome), isTime ? {} : this.without()), outcome };
    } catch (error) {
      // A batter that is none any more shows nothing; the table's strengths stand for it.
      if (error instanceof CoreError) return null;
      throw error;
    }
  }
  private looks(outcome: Outcome): Appearance {
    return appearanceOf(outcome, this.planned, this.shelf, cluesOf(outcome.input, outcome.analysis, this.shelf, {}));
  }
  private without(): Appearance {
    this.bare ??= this.looks(this.asBaked);
    return this.bare;
  }
}

/** Symptoms are ticked one by one over the same bake: what was baked for it is kept, the oldest let go. */
const known = new Map<string, Bench>();
const KEPT = 8;

function benchOf(written: Opened, input: Opened, shelf: Shelf, minutes: number | undefined): Bench {
  const key = JSON.stringify([
    written,
    input === written ? 0 : input.lines,
    minutes,
    input.lines.map(({ ingredientId }) => shelf.get(ingredientId ?? "")),
  ]);
  let bench = known.get(key);
  if (!bench) {
    bench = new Bench(written, input, shelf, minutes);
    known.set(key, bench);
    const oldest = known.keys().next().value;
    if (known.size > KEPT && oldest !== undefined) known.delete(oldest);
  }
  return bench;
}

/** The bench of what was really made; where that is no batter any more (its flour forgotten, a thing that is not on this shelf), of what was written. */
export function benchFor(written: Opened, real: Opened, shelf: Shelf, minutes: number | undefined): Bench {
  if (real === written) return benchOf(written, written, shelf, minutes);
  try {
    return benchOf(written, real, shelf, minutes);
  } catch (error) {
    if (error instanceof CoreError) return benchOf(written, written, shelf, minutes);
    throw error;
  }
}
