import type { BakeEvent } from "../live/events-schema";
import type { Plan } from "../plan/day";
import type { RunState, Season } from "../season/season-schema";
import { factorName } from "../season/space";
import { lossOf, profileOfHeights } from "../trial/measured";
import { scales } from "../trial/scales";
import type { Trial } from "../trial/trial";
import { CoreError } from "../errors";
import { type Cell, readTable, tableText } from "./table";

const or = (value: number | undefined | null): Cell =>
  value === undefined || value === null ? "" : Math.round(value * 1000) / 1000;

/** Trials as CSV: one line a trial, what was measured and seen in columns of its own, units in the head. */
export function trialsCsv(trials: readonly { id: string; trial: Trial }[]): string {
  const seen = [...new Set(trials.flatMap(({ trial }) => trial.seen.map(({ symptomId }) => symptomId)))].sort();
  const scored = scales
    .map(({ id }) => id)
    .filter((id) => trials.some(({ trial }) => (trial.scores as Record<string, unknown>)[id] !== undefined));
  const head = [
    "id", "at", "title", "formula id", "formula version", "kind", "oven id", "minutes", "minutes, expected", "core (°C)", "core, expected (°C)",
    "mass in (g)", "mass out (g)", "loss (%)", "loss, expected (%)", "height 1 (mm)", "height 2 (mm)", "height 3 (mm)", "height 4 (mm)", "height 5 (mm)",
    "volume index (mm)", "symmetry index (mm)", "pH of the crumb", "density (g/mL)", "stood (min)", "cut after (min)", "done by",
    ...scored.map((id) => `score: ${id}`), ...seen.map((id) => `seen: ${id} (0–3)`), "tags", "notes", "photographs",
  ]; // prettier-ignore
  const rows = trials.map(({ id, trial }): Cell[] => {
    const { measured: m, predicted: p } = trial;
    const profile = m.heightsMm ? profileOfHeights(m.heightsMm) : null;
    return [
      id, trial.at, trial.title, trial.formulaId ?? "", or(trial.formulaVersion), trial.formula.kind, trial.ovenId ?? "",
      or(m.minutes), or(p?.minutes), or(m.coreC), or(p?.coreC), or(m.massInG), or(m.massOutG), or(lossOf(m)), or(p?.lossPercent),
      ...[0, 1, 2, 3, 4].map((k) => or(m.heightsMm?.[k])), or(profile?.volumeIndex), or(profile?.symmetryIndex),
      or(m.crumbPh), or(m.densityGPerMl), or(m.stoodMinutes), or(m.cutAfterMinutes), trial.doneBy ?? "",
      ...scored.map((one) => or((trial.scores as Record<string, number | undefined>)[one])),
      ...seen.map((one) => or(trial.seen.find(({ symptomId }) => symptomId === one)?.degree)),
      trial.tags.join("; "), trial.notes, trial.photos.join(" "),
    ]; // prettier-ignore
  });
  return tableText(head, rows);
}

/** A planned day as CSV: one line a step, in the order in which they begin; times in ISO 8601. */
export function planCsv({ steps, bakes }: Pick<Plan, "steps" | "bakes">): string {
  const titles = new Map(bakes.map(({ id, title }) => [id, title]));
  const inOrder = [...steps].sort((a, b) => Date.parse(a.start) - Date.parse(b.start) || (a.id < b.id ? -1 : 1));
  return tableText(
    ["start", "end", "bake", "batch", "step", "words", "needs", "resources", "least (min)", "likely (min)", "most (min)"],
    inOrder.map(({ start, end, bakeId, batch, kind, words, needs, resources, minutes }) => [
      start, end, titles.get(bakeId) ?? bakeId, batch, kind, words, needs, resources.join("; "), or(minutes.low), or(minutes.mid), or(minutes.high),
    ]), // prettier-ignore
  );
}

/** Bakes as CSV: every event in its order, the numbers in columns. */
export function bakesCsv(bakes: readonly { id: string; title: string; events: readonly BakeEvent[] }[]): string {
  return tableText(
    ["bake id", "bake", "at", "event", "what", "value", "unit", "words"],
    bakes.flatMap(({ id, title, events }) => events.map((event) => [id, title, event.at, event.kind, ...eventCells(event)])),
  );
}

const MEASURED_UNITS: Record<string, string> = {
  batterC: "°C",
  densityGPerMl: "g/mL",
  falls: "",
  ph: "pH",
  massOutG: "g",
  heightMm: "mm",
};

function eventCells(event: BakeEvent): [what: Cell, value: Cell, unit: Cell, words: Cell] {
  switch (event.kind) {
    case "weighed":
      return [event.lineId, event.grams, "g", event.by];
    case "oven":
    case "probe":
      return [event.kind, event.celsius, "°C", event.kind === "probe" ? (event.by ?? "") : ""];
    case "used":
      return [
        "",
        event.packets.reduce((sum, { grams }) => sum + grams, 0),
        "g",
        event.packets.map(({ name, grams }) => `${name} ${grams}`).join("; "),
      ];
    case "photo":
      return [event.hash, "", "", ""];
    case "measured":
      return [event.what, event.value, MEASURED_UNITS[event.what] ?? "", ""];
    case "opened":
      return ["door", event.seconds, "s", ""];
    case "step":
      return [event.stepId, event.done ? 1 : 0, "", ""];
    case "slip":
    case "remedy":
      return ["", "", "", event.words];
    case "note":
      return ["", "", "", event.text];
    case "looked":
      return ["", "", "", event.seen ?? ""];
    case "out":
      return ["", "", "", event.by ?? ""];
    case "judged":
      return ["", "", "", Object.entries({ ...event.scores, ...event.scales }).map(([name, score]) => `${name} ${score}`).join("; ")]; // prettier-ignore
    case "started":
    case "turned":
    case "cut":
      return ["", "", "", ""];
  }
}

/** The curves of one bake as CSV: minutes since it went in, °C of the probe and of the oven, g on the scale. */
export function curvesCsv(events: readonly BakeEvent[]): string {
  const start = events.find(({ kind }) => kind === "started")?.at ?? events[0]?.at;
  const zero = start === undefined ? 0 : Date.parse(start);
  const rows = events.flatMap((event): Cell[][] => {
    const minutes = Math.round((Date.parse(event.at) - zero) / 600) / 100;
    if (event.kind === "probe") return [[event.at, minutes, event.celsius, "", ""]];
    if (event.kind === "oven") return [[event.at, minutes, "", event.celsius, ""]];
    if (event.kind === "weighed") return [[event.at, minutes, "", "", event.grams]];
    return [];
  });
  return tableText(["at", "minutes since the start", "probe (°C)", "oven (°C)", "weighed (g)"], rows);
}

/** The bakes of a season, one a line: every factor and every goal in columns of their own, with the 90 % range that is expected. */
export function seasonCsv({ factors, goals }: Pick<Season, "factors" | "goals">, runs: readonly RunState[]): string {
  const head = ["bake", "kind", "block", ...factors.map(factorName), ...goals.flatMap(({ quality }) => [quality, `${quality}, expected from`, `${quality}, expected to`]), "trial", "at"];
  return tableText(
    head,
    runs.map(({ id, kind, block, settings, results, expected, trialId, at }) => [
      id,
      kind,
      block + 1,
      ...factors.map((factor): Cell => { const value = settings[factor.id]; return typeof value === "number" ? or(value) : (value ?? ""); }),
      ...goals.flatMap(({ quality }) => [or(results[quality]), or(expected[quality]?.low), or(expected[quality]?.high)]),
      trialId ?? "",
      at ?? "",
    ]),
  );
} // prettier-ignore

/** What came out of a run, as it is written into the log. */
export interface RunResult {
  run: RunState;
  measured: Trial["measured"];
  scores: Trial["scores"];
  notes: string;
}

const FIGURE = /^-?\d+(?:[.,]\d+)?$/;

/**
 * Results of a season out of a table: a column `bake` with the names of its runs, a column for each quality that the log can hold (height in mm, minutes,
 * scales by their word, their number from 0, or their worth from 0 to 1), `notes`. Lines without results are left out, and so are bakes that are in the log
 * already. Throws `bad-table` with the line and what would be right.
 */
export function seasonResults(text: string, { goals }: Pick<Season, "goals">, runs: readonly RunState[]): RunResult[] {
  const { head, rows } = readTable(text);
  const column = (name: string): number => head.findIndex((one) => one.trim().toLowerCase() === name);
  const at = column("bake");
  if (at < 0) throw new CoreError("bad-table", "A column “bake” with the names of the season's bakes (run-1, run-2, …) would be right.", "text");
  return rows.flatMap((row, n): RunResult[] => {
    const wrong = (why: string): CoreError => new CoreError("bad-table", `Line ${n + 2}: ${why}`, "text");
    const name = row[at]?.trim() ?? "";
    const run = runs.find(({ id }) => id === name);
    const told = goals.flatMap(({ quality }) => {
      const cell = row[column(quality)]?.trim() ?? "";
      return cell === "" ? [] : [{ quality, cell }];
    });
    if (told.length === 0 || run?.trialId !== undefined) return [];
    if (!run) throw wrong(`no bake of this season is called “${name}”; one of ${runs.map(({ id }) => id).join(", ")} would be right.`);
    const out: RunResult = { run, measured: {}, scores: {}, notes: row[column("notes")]?.trim() ?? "" };
    for (const { quality, cell } of told) {
      const value = FIGURE.test(cell) ? Number(cell.replace(",", ".")) : null;
      const scale = scales.find(({ id }) => id === quality);
      if (scale) {
        const step = value === null ? scale.steps.findIndex(({ word }) => word === cell.toLowerCase()) : Number.isInteger(value) && value > 1 ? value : nearest(scale.steps.map(({ worth }) => worth), value);
        if (step < 0 || step >= scale.steps.length) throw wrong(`${scale.name} is one of ${scale.steps.map(({ word }) => word).join(", ")}; “${cell}” is none.`);
        out.scores[quality] = step;
      } else if (quality === "height" || quality === "minutes") {
        if (value === null || value <= 0) throw wrong(`${quality} is a number, such as ${quality === "height" ? "62" : "55"}; “${cell}” is none.`);
        out.measured = quality === "height" ? { ...out.measured, heightMm: value } : { ...out.measured, minutes: value };
      }
    }
    return Object.keys(out.measured).length + Object.keys(out.scores).length > 0 ? [out] : [];
  });
} // prettier-ignore

const nearest = (all: readonly number[], value: number): number =>
  all.reduce((best, one, k) => (Math.abs(one - value) < Math.abs((all[best] ?? 0) - value) ? k : best), 0);
