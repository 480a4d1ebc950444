import type { InputLine } from "../formula/components";
import { gramsOf } from "../formula/components";
import type { Opened } from "../formula/open";
import type { Slip } from "../live/events-schema";
import { gramsText } from "../measure/amounts";
import type { Shelf } from "../pantry/shelf";
import { type Cause, causes } from "./causes";
import { gramsIn, type GroupName, groups } from "./groups";

/** The formula that was really baked: what is on record of other amounts, things forgotten and things swapped, put into its batter. */
export function asBaked(input: Opened, slips: readonly Slip[]): Opened {
  let lines: readonly InputLine[] = input.lines;
  for (const slip of slips) {
    const isIt = (line: InputLine): boolean => line.ingredientId === slip.ingredientId && line.component === undefined;
    const there = lines.filter(isIt).reduce((sum, line) => sum + gramsOf(line), 0);
    if (slip.what === "forgotten") lines = lines.filter((line) => !isIt(line));
    else if (slip.what === "amount") {
      lines = there > 0
        ? lines.map((line) => (isIt(line) ? { ...line, grams: (gramsOf(line) * slip.grams) / there } : line))
        : [...lines, { ingredientId: slip.ingredientId, grams: slip.grams }];
    } else if (there > 0) {
      const grams = slip.grams ?? there;
      lines = lines.map((line) => (isIt(line) ? { ...line, ingredientId: slip.with, grams: (gramsOf(line) * grams) / there } : line));
    }
  }
  return { ...input, lines: lines.filter((line) => line.grams === undefined || gramsOf(line) > 0) };
} // prettier-ignore

/** Log odds that a slip of the whole size of a cause gives it. */
const ON_RECORD = 5;
/** Less than this share more or less of a group is within what scales and spoons do. */
const WITHIN = 0.1;
/** What a thing that was left out tells against its being short, and the other way round, where both are causes. */
const OTHER_NAME = -3;

const isGroup = (what: string): what is GroupName => what in groups;

const isOf = (id: string, group: GroupName, shelf: Shelf): boolean => {
  const ingredient = shelf.get(id);
  return ingredient !== undefined && groups[group](ingredient);
};

/** What the record tells for a cause that is another amount of something: how much of the cause's own deviation was really made. Null where it tells nothing of it. */
export function recordedFor(cause: Cause, planned: Opened, real: Opened, slips: readonly Slip[], shelf: Shelf): { value: string; weight: number } | null {
  const of = cause.deviation;
  if (cause.id === "wrong-flour") {
    const slip = slips.find((one) => one.what === "swapped" && isOf(one.ingredientId, "flour", shelf));
    return slip?.what === "swapped" ? { value: `${shelf.get(slip.with)?.name ?? slip.with} for ${shelf.get(slip.ingredientId)?.name ?? slip.ingredientId}`, weight: ON_RECORD + 1 } : null;
  }
  // What a powder has lost, and what pieces give up, no scale shows.
  if (!of || !isGroup(of.what) || of.what === "powder" || cause.remedy?.kind === "process" && of.what !== "flour" && of.by > 0) return null;
  const [was, is] = [gramsIn(planned, of.what, shelf), gramsIn(real, of.what, shelf)];
  if (was <= 0 && is <= 0) return null;
  // Where all of it is more or less, nothing is.
  const whole = ({ lines }: Opened): number => lines.reduce((sum, line) => sum + (line.component === undefined ? gramsOf(line) : 0), 0);
  const ratio = was > 0 ? (is / was) * (whole(planned) / Math.max(1, whole(real))) : 3;
  if (Math.abs(ratio - 1) < WITHIN || ratio > 1 !== of.by > 1) return null;
  const share = ratio > 1 ? Math.log(ratio) / Math.log(of.by) : (1 - ratio) / (1 - of.by);
  const what = of.what;
  const rival = causes.some((other) => other !== cause && other.deviation?.what === what && other.deviation.by < 1 === of.by < 1);
  const isForgotten = slips.some((slip) => slip.what === "forgotten" && isOf(slip.ingredientId, what, shelf));
  const isNamed = !rival || isForgotten === (of.by === 0);
  return { value: `${gramsText(is)} for ${gramsText(was)}`, weight: isNamed ? ON_RECORD * Math.min(1, share) : OTHER_NAME };
} // prettier-ignore
