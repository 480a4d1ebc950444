import type { Simulation } from "@uprise/core";
import { brownWord, stageChange } from "@uprise/core/page";

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

/** On a plate all the while: there is no oven and no door to it. */
export const isOnPlate = ({ stages }: Simulation): boolean => stages.length > 0 && stages.every(({ mode }) => mode === "hob");

function whereWord(simulation: Simulation, sample: number): string {
  const phase = simulation.phases[sample] ?? "oven";
  return phase === "oven" && isOnPlate(simulation) ? "on the plate" : phaseWord[phase];
}

/** The last sample at or before a time. */
export function sampleAt(simulation: Simulation, time: number): number {
  let found = 0;
  simulation.times.forEach((t, i) => {
    if (t <= time + 1e-6) found = i;
  });
  return found;
}

/** s at which it leaves the oven. */
export const secondsIn = ({ times, phases }: Simulation): number => times[phases.lastIndexOf("oven")] ?? 0;

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
  return `After ${clock(time)}, ${whereWord(simulation, i)}: core ${core} °C, top ${surface} °C; highest ${crown} mm${over}, edge ${edge} mm; ${set} % of the crumb has set.`;
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

const goldenWhere: Record<Simulation["judged"], string> = {
  inside: "Golden on top",
  crust: "A light, dry crust",
  top: "Golden on top",
  rim: "Rim and top golden",
  edge: "Its edge golden",
  faces: "Both faces coloured",
  snaps: "Golden on top",
};

/** Everything that happens to a bake, in the order of time: what to look for, and when. Minutes from the oven door; `after` those on the counter. */
export function happenings(simulation: Simulation, hob: boolean): { key: string; what: string; when: string; strong?: boolean }[] {
  const { marks, judged, targetC, checkAtMinutes, minutes, turnAtMinutes, againAtMinutes } = simulation;
  const inOven: { key: string; what: string; at: number | null; strong?: boolean }[] = [
    { key: "look", what: "Look first", at: checkAtMinutes },
    { key: "springs", what: "Springs back where it is touched", at: marks.springs },
    { key: "core", what: `Set: ${Math.round(targetC)} °C inside`, at: marks.core, strong: true },
    { key: "skewer", what: "A skewer comes out clean", at: marks.skewer },
    { key: "golden", what: goldenWhere[judged], at: marks.golden, strong: true },
    { key: "dry", what: judged === "snaps" ? "Dry enough to snap" : "Its top dry", at: marks.dry, strong: true },
    { key: "edge", what: "The edge draws away from the wall", at: marks.edge },
    { key: "turn", what: hob ? "Turn it over" : "Safe to turn the tin", at: turnAtMinutes },
    ...againAtMinutes.map((at, k) => ({ key: `again ${k + 1}`, what: "Turn it again", at })),
    { key: "out", what: "Out", at: minutes, strong: true },
  ];
  const changes = simulation.stages.slice(1).map((stage, k): (typeof inOven)[number] => ({
    key: `stage ${k + 2}`,
    what: `${stageChange(simulation.stages[k] ?? stage, stage)} (stage ${k + 2})`,
    at: stage.from,
  }));
  const later = [
    ...(simulation.outOfTinMinutes > 0 ? [{ key: "tin", what: "Out of its tin", at: simulation.outOfTinMinutes }] : []),
    { key: "bite", what: "First bite", at: simulation.biteAfterMinutes },
    { key: "cut", what: "A clean cut, inside under 50 °C", at: simulation.cutAfterMinutes },
  ].sort((a, b) => a.at - b.at);
  return [
    ...[...inOven, ...changes]
      .filter((each): each is typeof each & { at: number } => each.at !== null && each.at <= minutes + 0.05)
      .sort((a, b) => Number(a.key === "out") - Number(b.key === "out") || a.at - b.at)
      .map(({ key, what, at, strong }) => ({
        key,
        what,
        when: `${at < 10 ? at.toFixed(1) : Math.round(at)} min`,
        ...(strong ? { strong } : {}),
      })),
    ...later.map(({ key, what, at }) => ({ key, what, when: `${Math.round(at)} min after` })),
  ];
}
