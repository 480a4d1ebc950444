import { brownWord, type Simulation } from "@uprise/core";

/** Minutes of a second, as a baker says them. */
export const clock = (seconds: number): string => {
  const minutes = Math.floor(seconds / 60 + 1e-6);
  return seconds < 600 ? `${minutes}:${String(Math.floor(seconds % 60)).padStart(2, "0")} min` : `${Math.round(seconds / 60)} min`;
};

const phaseWord: Record<Simulation["phases"][number], string> = {
  oven: "in the oven",
  tin: "out, in the tin",
  rack: "on the rack",
};

/** The last sample at or before a time. */
export function sampleAt(simulation: Simulation, time: number): number {
  let found = 0;
  simulation.times.forEach((t, i) => {
    if (t <= time + 1e-6) found = i;
  });
  return found;
}

/** The section at one moment in one sentence, for those who do not see it. */
export function momentSentence(simulation: Simulation, time: number): string {
  const i = sampleAt(simulation, time);
  const core = Math.round(simulation.coreC[i] ?? 0);
  const crown = Math.round(simulation.crownMm[i] ?? 0);
  const edge = Math.round(simulation.edgeMm[i] ?? 0);
  const set = Math.round(100 * (simulation.set[i] ?? 0));
  const surface = Math.round(simulation.surfaceC[i] ?? 0);
  const rim = simulation.section.rimMm;
  const over = rim !== null && crown > rim ? `, ${Math.round(crown - rim)} over the rim` : "";
  return `After ${clock(time)}, ${phaseWord[simulation.phases[i] ?? "oven"]}: core ${core} °C, top ${surface} °C; highest ${crown} mm${over}, edge ${edge} mm; ${set} % of the crumb has set.`;
}

const topWord: Record<Simulation["top"], string> = {
  domed: "a dome",
  flat: "a flat top",
  peaked: "a peak",
  sunken: "a sunken middle",
  "over the rim": "batter over the rim",
};

/** The whole bake in a sentence or two. */
export function bakeSentence(simulation: Simulation): string {
  const { top, cooledMm, gummy, browning } = simulation;
  const crust = `${brownWord(browning.top)} on top, ${brownWord(browning.base)} underneath`;
  const raw =
    gummy.share > 0.02
      ? ` ${Math.round(100 * gummy.share)} % of the crumb is unset or over-wet, ${Math.round(gummy.mm)} mm in the middle.`
      : "";
  return `It cools to ${topWord[top]}, ${Math.round(cooledMm.middle)} mm in the middle and ${Math.round(cooledMm.edge)} at the edge; ${crust}.${raw}`;
}
