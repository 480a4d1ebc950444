import type { Line, Reading } from "../src/measure/reading-schema";
import type { ReadPan } from "../src/measure/pan-text";

/** A thing that a line names: `is` and `not` are patterns for "ingredientId name", `grams` holds the mid of its mass. */
interface Wanted {
  is: string;
  not?: string;
  /** The id, if there is one, must itself match: the thing is easily taken for another. */
  own?: boolean;
  /** null: no mass may be given. */
  grams: [number, number] | null;
  /** A reading without mass is right too. */
  orNull?: boolean;
  state: Line["state"] | Line["state"][];
  optional?: boolean;
}
export interface LineCase {
  id: string;
  text: string;
  measures: "us" | "metric" | "uk" | "au";
  expect: Wanted[];
  or?: Wanted[][];
  /** Nothing certain may come of it: whatever is read of it is asked, unread or within a kitchen's reason. */
  hostile?: boolean;
}
interface PanWanted extends Omit<Partial<ReadPan>, "shape" | "lengthMm" | "widthMm" | "diameterMm" | "heightMm"> {
  /** One shape, or those that are right. */
  shape?: string | string[];
  lengthMm?: Near;
  widthMm?: Near;
  diameterMm?: Near;
  heightMm?: Near;
}
/** A number with 5 % of tolerance, or a range. */
type Near = number | [number, number];
interface Facts {
  /** °C; null: none may be read. */
  oven?: [number, number] | null;
  mode?: string;
  minutes?: [number, number] | null;
  pan?: PanWanted | null;
  pieces?: number;
  coreC?: number | [number, number] | null;
  asks?: string;
}
export interface FactCase extends Facts {
  id: string;
  text: string;
  measures: LineCase["measures"];
}
export interface RecipeCase extends FactCase {
  batterG: [number, number];
  parts: { is: string; role: string | string[]; massG?: [number, number] }[];
  /** How many lines stay without an amount, and patterns of which ones. */
  open: number;
  openAre?: string[];
  /** Patterns of what must not be read. */
  mustNot?: string[];
}

/** What stands before a line or a fact, so that nothing is judged by being the first line of a text. */
export const BEFORE = ["Pier bake", "123 g millet flour"];
export const framed = (text: string): string => [...BEFORE, text].join("\n");

const within = (x: number | undefined, [low, high]: [number, number]): boolean => x !== undefined && x >= low && x <= high;
const near = (x: number | undefined, want: Near): boolean =>
  within(x, Array.isArray(want) ? want : [want * 0.95 - 0.5, want * 1.05 + 0.5]);
const ingredients = (reading: Reading): Line[] => reading.lines.filter((line) => line.role === "ingredient");
const labelOf = (line: Line): string => `${line.ingredientId ?? ""} ${line.name}`.trim();
const cameOf = (line: Line): string =>
  `${labelOf(line)} ${line.grams ? `${Math.round(line.grams.mid * 100) / 100} g` : "no mass"} ${line.state}`;

function fits(want: Wanted, line: Line): boolean {
  const is = new RegExp(want.is, "iu");
  if (!is.test(labelOf(line)) || (want.not !== undefined && new RegExp(want.not, "iu").test(labelOf(line)))) return false;
  if (want.own && line.ingredientId !== null && !is.test(line.ingredientId)) return false;
  if (![want.state].flat().includes(line.state) || (want.optional && line.optional !== true)) return false;
  if (want.grams === null) return line.grams === null;
  return line.grams === null ? want.orNull === true : within(line.grams.mid, want.grams);
}

/** Every wanted thing has a line of its own, and nothing else weighs anything. */
function holds(wants: readonly Wanted[], lines: readonly Line[]): boolean {
  const [first, ...rest] = wants;
  if (!first) return lines.every((line) => line.grams === null);
  return lines.some((line, at) => fits(first, line) && holds(rest, [...lines.slice(0, at), ...lines.slice(at + 1)]));
}

/** What a line is read as otherwise than wanted; null where it is right. */
export function judgeLine(wanted: LineCase, reading: Reading): string | null {
  const lines = ingredients(reading).filter((line) => !BEFORE.includes(line.source));
  if (wanted.hostile) {
    const sure = lines.filter((line) => line.state === "read" && line.grams !== null && line.grams.mid > 20_000);
    return sure.length > 0 ? `took for certain: ${sure.map(cameOf).join(" + ")}` : null;
  }
  if ([wanted.expect, ...(wanted.or ?? [])].some((wants) => holds(wants, lines))) return null;
  return `came: ${lines.map(cameOf).join(" + ") || "no ingredient"}; wanted: ${JSON.stringify(wanted.expect)}`;
}

function panFits(want: PanWanted, pan: ReadPan, pieces: number | undefined): boolean {
  if (![want.shape].flat().includes(pan.shape) || (want.material !== undefined && want.material !== pan.material)) return false;
  if (want.pieces !== undefined && pan.pieces !== want.pieces && pieces !== want.pieces) return false;
  return (["lengthMm", "widthMm", "diameterMm", "heightMm"] as const).every((key) => {
    const wanted = want[key];
    return wanted === undefined || near(pan[key], wanted);
  });
}

/** What of oven, time, pan and core is read otherwise than wanted. A field that is absent is not judged. */
export function judgeFacts(want: Facts, reading: Reading): string[] {
  const faults: string[] = [];
  const judge = (what: string, came: unknown, right: boolean): void => {
    if (!right) faults.push(`${what} came as ${JSON.stringify(came ?? null)}`);
  };
  const { oven, minutes, pan, coreC } = reading;
  if (want.oven !== undefined)
    judge("oven", oven, want.oven === null ? !oven : within(oven?.celsius, want.oven) && (!want.mode || oven?.mode === want.mode));
  if (want.minutes !== undefined)
    judge(
      "minutes",
      minutes,
      want.minutes === null
        ? !minutes
        : minutes !== undefined && Math.abs(minutes.low - want.minutes[0]) <= 1 && Math.abs(minutes.high - want.minutes[1]) <= 1,
    );
  if (want.pan !== undefined)
    judge("pan", pan, want.pan === null ? !pan : pan !== undefined && panFits(want.pan, pan, reading.yield?.pieces));
  if (want.coreC !== undefined)
    judge(
      "core",
      coreC,
      want.coreC === null
        ? coreC === undefined
        : within(coreC, Array.isArray(want.coreC) ? want.coreC : [want.coreC - 1.5, want.coreC + 1.5]),
    );
  if (want.pieces !== undefined)
    judge("pieces", pan?.pieces ?? reading.yield?.pieces, [pan?.pieces, reading.yield?.pieces].includes(want.pieces));
  if (want.asks !== undefined)
    judge(
      "questions",
      reading.questions.map(({ kind }) => kind),
      reading.questions.some(({ kind }) => kind === want.asks),
    );
  return faults;
}

/** What of a whole recipe is read otherwise than wanted. */
export function judgeRecipe(want: RecipeCase, reading: Reading): string[] {
  const faults = judgeFacts(want, reading);
  const lines = ingredients(reading);
  const sum = (some: readonly Line[]): number => Math.round(some.reduce((all, { grams }) => all + (grams?.mid ?? 0), 0));
  const sources = new Set(reading.lines.map(({ source }) => source.trim()));
  for (const line of want.text.split("\n")) if (line.trim() !== "" && !sources.has(line.trim())) faults.push(`lost “${line}”`);
  const soaked = new Set(
    (reading.components ?? []).filter(({ role }) => role === "soaker" || role === "paste").map(({ id }) => id),
  );
  const batter = sum(lines.filter(({ component }) => component === undefined));
  const withSoaked = sum(lines.filter(({ component }) => component === undefined || soaked.has(component)));
  if (!within(batter, want.batterG) && !within(withSoaked, want.batterG))
    faults.push(`batter ${batter} g, wanted ${want.batterG.join("–")} g`);
  for (const { is, role, massG } of want.parts) {
    const parts = (reading.components ?? []).filter((part) => [role].flat().includes(part.role));
    const named = parts.filter(({ name }) => new RegExp(is, "i").test(name));
    const some = named.length > 0 ? named : parts;
    const masses = some.map((part) => sum(lines.filter(({ component }) => component === part.id)));
    const all = masses.reduce((a, b) => a + b, 0);
    if (some.length === 0 || (massG && ![...masses, all].some((mass) => within(mass, massG))))
      faults.push(`part ${is}/${[role].flat().join("|")} came with ${masses.join(", ")} g`);
  }
  const open = lines.filter(({ grams, state }) => grams === null && state !== "read");
  if (open.length < want.open) faults.push(`${open.length} open, wanted ${want.open}`);
  for (const pattern of want.openAre ?? [])
    if (!open.some((line) => new RegExp(pattern, "iu").test(`${line.source} ${labelOf(line)}`)))
      faults.push(`/${pattern}/ is not open`);
  for (const pattern of want.mustNot ?? [])
    for (const line of lines.filter((each) => new RegExp(pattern, "iu").test(labelOf(each)))) faults.push(`read ${cameOf(line)}`);
  return faults;
}
