import { readTemperatures, type ReadTemperatures } from "./oven-text";
import { asScanned } from "./grammar/scanned";
import { readProcess } from "./process-text";
import { passagesOf, WHOLE_SENTENCES } from "./grammar/passages";
import { readPan } from "./pan-text";
import { piecesIn } from "./pieces-text";
import { inEnglish, type Language, languageOfLine } from "./languages/language";
import type { Line, Question, Reading } from "./reading-schema";
import { readStages, readStagesByDefault, type ReadStage } from "./time-text";
import { celsiusFromFahrenheit } from "./units";
import type { Measures } from "./units";

function setStages(reading: Reading, stages: ReadStage[]): void {
  delete reading.stages;
  const sum = (end: "low" | "high"): number => stages.reduce((all, { minutes }) => all + minutes[end], 0);
  reading.minutes = { low: sum("low"), high: sum("high") };
  if (stages.length > 1) reading.stages = stages;
}

/** What the lines that are no ingredients say of oven, time, core, pan and yield. The first word counts, but a bake outranks a preheating. */
export function readSurroundings(reading: Reading, measures: Measures, language: Language): void {
  const told = ({ source }: Line): string => inEnglish(asScanned(source).text, languageOfLine(source, language));
  const speaks = reading.lines.flatMap((line, at) => {
    if (line.role === "title" || (line.role === "ingredient" && !mayBeWhole(line))) return [];
    const text = told(line);
    return line.role !== "ingredient" || tellsOfBaking.test(text) ? [{ text, at, role: line.role }] : [];
  });
  reading.process = readProcess(speaks.filter(({ role }) => role !== "heading").map(({ text }) => text));
  let weakly = false;
  const ovens: { at: number; read: ReadTemperatures; bakes: boolean }[] = [];
  const said = speaks.flatMap(({ text: whole, at }) => passagesOf(whole, WHOLE_SENTENCES).map((text) => ({ text, at })));
  for (const { text, at } of said) {
    const read = readTemperatures(text);
    // “Fry in oil at 175 °C”: the heat of the fat is no oven's.
    const fat =
      reading.process.elsewhere === "deep-fry" &&
      /\b(?:oil|fat|fr(?:y|ied|ying))\b/i.test(text) &&
      !/\b(?:oven|bak(?:e[sd]?|ing))\b/i.test(text);
    if (read.celsius !== undefined && !fat)
      ovens.push({ at, read, bakes: /\bbak(?:e|ing)\b/i.test(text) && !/\bpre-?heat/i.test(text) });
    if (read.coreC !== undefined) reading.coreC ??= read.coreC;
    const stages = readStages(text);
    // What is cooked by itself is the bake only where no other is told.
    const weak = /\bcook/i.test(text) && !/\bbak(?:e|ing)\b|\boven\b|\d\s*°/i.test(text);
    if (stages.length > 0 && (reading.minutes === undefined || (weakly && !weak))) {
      weakly = weak;
      setStages(reading, stages);
    }
    const pan = readPan(text);
    if (pan && (reading.pan === undefined || (reading.pan.shape === "free" && pan.shape !== "free"))) reading.pan = pan;
    const pieces = piecesIn(text);
    if (pieces !== null && reading.yield === undefined) reading.yield = { pieces };
  }
  if (reading.minutes === undefined && reading.process.elsewhere === undefined) {
    const stages = said.map(({ text }) => readStagesByDefault(text)).find((found) => found.length > 0) ?? [];
    if (stages.length > 0) setStages(reading, stages);
  }
  // "Drop scones (makes 14)"
  const named = reading.lines.find(({ role }) => role === "title");
  const made = named ? piecesIn(inEnglish(named.source, language)) : null;
  if (made !== null && reading.yield === undefined) reading.yield = { pieces: made };
  // What is set on a tray or into cases is counted by the yield.
  if (reading.pan && (reading.pan.shape === "free" || reading.pan.shape === "muffin") && reading.yield?.pieces !== undefined)
    reading.pan.pieces ??= reading.yield.pieces;
  if (ovens.length === 0 && reading.process.elsewhere === undefined)
    onPlate(
      reading,
      said.map(({ text }) => text),
    );
  // A fan's number and the conventional one of another line are one oven: the conventional one.
  const chosen =
    ovens.find(({ bakes, read }) => bakes && read.mode !== "fan") ?? ovens.find(({ read }) => read.mode !== "fan") ?? ovens[0];
  if (chosen) {
    const { read, at } = chosen;
    const line = reading.lines[at];
    reading.oven = {
      celsius: read.celsius ?? 0,
      ...(read.mode ? { mode: read.mode } : {}),
      ...(read.fahrenheit ? { dial: "F" as const } : {}),
    };
    if (read.conflict && line) reading.questions.push(temperatureQuestion(read.conflict, at, line));
    // What may be either is °C where another language than English is spoken.
    if (read.ambiguous && line && language === "en")
      reading.questions.push(scaleQuestion(read.ambiguous.celsius, at, line, measures));
  }
}

const plate =
  "(?:griddle|girdle|bake ?stone|planc|frying[ -]pan|fry pan|tawa|tava|comal|crepe pan|pancake pan|hot plate|hotplate|skillet|pan)";
const heat =
  "(?:over|on|at) (?:a |an )?(?:very |fairly )?(?:low|gentle|medium|moderate|high|strong|fierce|good)(?:[ -](?:low|high|hot))?(?: heat| flame| fire)?";
/** It is cooked on a plate or in a pan on the hob: by the name of one that is never in an oven, by its heat, or side by side. */
const plates = [
  /\b(?:griddle|girdle|bake ?stone|planc|frying[ -]pan|fry pan|tawa|tava|comal|crepe pan|dry (?:[\w-]+ ){0,2}(?:pan|skillet))\b/i,
  new RegExp(`\\b${plate}\\b[^.;]{0,60}\\b${heat}\\b|\\b${heat}\\b[^.;]{0,40}\\b${plate}\\b`, "i"),
  /\b(?:cook|fry|toast|griddle|sear)\w*\b[^.;]{0,60}\bmin(?:ute)?s?\b[^.;]{0,12}\b(?:each|per|a|either|both|every) sides?\b/i,
];
const inATin = /\b(?:oven|bake at|tins?|loaf pan|muffin|air[ -]?fryer|grill)\b/i;
const greases = /\b(?:greas|butter|oil|lard|ghee|fry\b|fried|fat\b)/i;

/** What no oven is named for and is cooked on a plate lies on one, whatever cutter or skillet was measured. */
function onPlate(reading: Reading, texts: readonly string[]): void {
  const at = texts.filter((text) => plates.some((words) => words.test(text)));
  if (at.length === 0 || texts.some((text) => inATin.test(text))) return;
  // A pan over the heat may have melted butter for what is baked.
  if (
    !texts.some((text) => plates[0]?.test(text)) &&
    texts.some((text) => /\bbak(?:e[sd]?|ing)\b(?! ?(?:powder|soda|stone))/i.test(text))
  )
    return;
  const { shape, lining } = reading.pan ?? { shape: "griddle" as const };
  if (shape !== "griddle" && shape !== "round" && shape !== "free") return;
  const dry = at.some((text) => /\b(?:dry|un-?greased)\b/i.test(text));
  const fat = !dry && (lining === "greased" || at.some((text) => greases.test(text)));
  const material = reading.pan?.material === undefined ? {} : { material: reading.pan.material };
  reading.pan = {
    shape: "griddle",
    ...material,
    ...(fat ? { lining: "greased" as const } : dry ? { lining: "none" as const } : {}),
  };
}

/** A recipe on one line says of the oven and the tin what a line of its own would. */
const mayBeWhole = ({ item, source }: Line): boolean =>
  (item === 0 || (item === undefined && /[.;]\s+\S|,\s*(?:then )?bake\b/i.test(source))) && source.length > 50;
const tellsOfBaking =
  /(?:\b|\d)(?:min(?:ute)?s?|hours?|hrs?)\b|\d\s*°|\boven\b|\bbake(?: at)? [1-4]\d\d\b|\bgas (?:mark )?(?:\d|one|two|three|four|five|six|seven|eight)/i;

function temperatureQuestion(pair: { celsius: number; fahrenheit: number }, index: number, line: Line): Question {
  line.state = "asked";
  const converted = Math.round(celsiusFromFahrenheit(pair.fahrenheit));
  return {
    id: `oven-${index}`,
    kind: "temperatures-disagree",
    line: index,
    message: `${pair.celsius} °C is not ${pair.fahrenheit} °F: that would be ${converted} °C. Which one is meant?`,
    choices: [
      { label: `${pair.celsius} °C`, celsius: pair.celsius },
      { label: `${pair.fahrenheit} °F, ${converted} °C`, celsius: converted },
    ],
  };
}

function scaleQuestion(said: number, index: number, line: Line, measures: Measures): Question {
  line.state = "asked";
  const f = Math.round(celsiusFromFahrenheit(said));
  const choices = [
    { label: `${said} °C`, celsius: said },
    { label: `${said} °F, ${f} °C`, celsius: f },
  ];
  return {
    id: `scale-${index}`,
    kind: "which-scale",
    line: index,
    message: `${said} may be °C or °F here. Which one is it?`,
    choices: measures === "us" ? [choices[1] ?? choices[0], choices[0]].filter((choice) => choice !== undefined) : choices,
  };
}
