import { isCounted } from "./weigh";
import { plainText } from "./grammar/tokens";
import type { Meant, Names } from "./meaning";
import { MOST_EGGS } from "./part-of-whole";
import { timesIn } from "./time-text";
import { unitOf } from "./units";

/** "millet flour 620": a food and a figure, and nothing else. */
const bareFigure =
  /^\s*(\p{L}(?:[^\d]|\d+(?:[.,]\d+)?\s?%){1,40}?)[\s:]+(\d{1,4}(?:[.,]\d{1,2})?)(?:\s+(\p{L}{4,}[\p{L} +&'-]{0,30}))?\s*$/u;
export const brackets = /\([^()]*\)/g;
const FEW = 3;
/** "egg 1" is one egg, "egg 150" its mass: so many of a thing are still a count. */
const MOST_COUNTED = 12;
/** Whether a figure without a unit ("eggs 15") counts pieces of a thing. */
export const counts = (figure: number, called: string, what: Meant["what"] | undefined): boolean =>
  isCounted(what) && figure <= (/^eggs\b/i.test(called.trim()) ? MOST_EGGS : MOST_COUNTED);

/** "Carrot muffins, version 6": how often it was written, and no food. */
const numbered = /\b(?:version|v|no|nr|take|try|test|attempt|mark|mk|part|lesson|chapter|edition)\.?$/i;
/** "bake 25", "page 31": no food is called so. */
const noFood = /^(?:bake[sd]?|cook(?:ed|ing)?|oven|pages?|rest|chill|cool|time|temp\w*|day|step|batch|no|week|wk|tray|rack)\b/i;

/** The food of such a line, its figure and what is done to it; a time, a unit or a word of the oven behind the figure makes it none. */
export function bareRow(line: string, names: Names): RegExpExecArray | null {
  // What a bracket says of it stands beside: "flour (rice/tapioca 2:1) 240"; strokes set the cells of a table apart.
  const found = bareFigure.exec(line.replace(brackets, " ").replaceAll("|", " ").replace(/\s+/g, " "));
  const behind = (found?.[3] ?? "")
    .toLowerCase()
    .split(" ")
    .filter((word) => word !== "");
  const isFood = behind.length === 0 || (names.known(plainText(found?.[1] ?? "")) !== null && behind.every((word) => unitOf(word) === null) && timesIn(`1 ${behind[0]}`).length === 0); // prettier-ignore
  return isFood && !noFood.test(found?.[1] ?? "") && !numbered.test(found?.[1] ?? "") ? found : null;
}

/** "600 sorghum", "water 780": a food and a figure in a list on one line. */
const bareItem = /^(?:(\d{1,4}(?:[.,]\d)?)\s+(\p{L}[\p{L} &'-]{1,30})|(\p{L}[\p{L} &'-]{1,30}?)\s+(\d{1,4}(?:[.,]\d)?))$/u;

/** "egg 1 (50)": a count, and its mass in a bracket without a unit. */
const countAndMass = /^(\p{L}[\p{L} '-]{1,30}?)\s+(\d{1,2})\s*\(\s*(\d{2,4})\s*\)$/u;

/** "g rice flour": what stands behind its figure is a unit, and says what the bare ones beside it are. */
const hasUnit = (called: string): boolean => /^(?:g|grams?|ml)\s+\p{L}/iu.test(called);

/** A line of foods with bare figures, as one with grams; null where it is none. */
export function bareList(line: string, names: Names, few = FEW): string | null {
  const apart = line.includes(",") ? /,\s*(?:and\s+)?/ : /\s\/\s/;
  if (line.split(apart).length < few) return null;
  const [, head = "", rest = line] = /^([^:\d]{2,40}:\s+)?(.+)$/.exec(line.trim()) ?? [];
  const whole = rest.split(apart).map((part) => part.trim());
  const glosses = whole.map((part) =>
    countAndMass.test(part) ? "" : (part.match(brackets) ?? []).map((one) => ` ${one}`).join(""),
  );
  const parts = whole.map((part) => part.replace(countAndMass, "$2 $1 ($3 g)").replace(brackets, " ").replace(/\s+/g, " ").replace(/\.\s*$/, "").trim()); // prettier-ignore
  const read = parts.map((part) => {
    const [, before, behind, name, figure] = bareItem.exec(part) ?? [];
    const called = behind ?? name;
    const found = called === undefined ? null : names.find(plainText(called));
    const thing = called === undefined ? null : (names.known(plainText(called)) ?? (found?.respelled ? found : null));
    // "2 eggs" is two of them, "egg 1 (50)" too.
    const weighed = thing && !counts(Number(before ?? figure), called ?? "", thing.what);
    return weighed ? { figure: before ?? figure ?? "", name: called } : null;
  });
  const known = read.filter((one) => one !== null).length;
  if (known < few - 1 || known < parts.length - 2) return null;
  // A name that nobody knows among them has a figure of the same kind.
  const all = parts.map((part, k) => {
    const [, before, behind, name, figure] = read[k] ? [] : (bareItem.exec(part) ?? []);
    const called = behind ?? name;
    const counted = called !== undefined && (names.known(plainText(called)) !== null || hasUnit(called));
    return read[k] ?? (called === undefined || counted ? null : { figure: before ?? figure ?? "", name: called });
  });
  const said = parts.filter((part, k) => all[k] !== null || hasUnit(part.replace(/^[\d.,]+\s*/, "")) || countAndMass.test(whole[k] ?? "")); // prettier-ignore
  if (said.length < few) return null;
  const written = parts.map((part, k) => {
    const one = all[k];
    if (one) return `${one.figure} g ${one.name}${glosses[k] ?? ""}`;
    const [, , , name, figure] = bareItem.exec(part) ?? [];
    if (name !== undefined) return `${figure} ${name}`;
    return (whole[k] ?? "").replace(countAndMass, "$2 $1 ($3 g)");
  });
  return head + written.join(", ");
}

/** "BP 55 g", "GF flour 1.2 kg": beside lines of this kind a figure without a unit is of the same one. */
const inGrams = /^\s*\p{L}[^\d|]{1,40}?[\s:]+\d+(?:[.,]\d+)?\s?k?g\b/gmu;
const FEW_IN_GRAMS = 2;

const total = /^\s*(?:total|sum|together|batch|gesamt|summe|totale?)\b/i;

/**
 * Whether a text is a sheet of foods with figures without a unit, as bakers keep them: grams, and each is asked about; but where its own total is their
 * sum, the sheet itself says that they are one measure, and that of a scale.
 */
export function bareFigures(text: string, names: Names): "asked" | "summed" | null {
  const rows = text.split("\n").flatMap((line) => {
    const [, name, figure] = bareRow(line, names) ?? [];
    return name === undefined ? [] : [{ name, figure: Number(figure?.replace(",", ".")) }];
  });
  const foods = rows.filter(({ name }) => !total.test(name));
  const few = (text.match(inGrams)?.length ?? 0) >= FEW_IN_GRAMS ? 1 : FEW;
  const known = foods.filter(({ name }) => names.known(plainText(name)) !== null).length;
  if (known < few && !text.split("\n").some((line) => bareList(line, names) !== null)) return null;
  const sum = foods.reduce((all, { figure }) => all + figure, 0);
  return rows.some(({ name, figure }) => total.test(name) && figure > 100 && Math.abs(figure - sum) <= 0.01 * sum)
    ? "summed"
    : "asked";
}
