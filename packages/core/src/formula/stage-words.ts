import { capital } from "../measure/list-words";
import { stageMinutes } from "./stage";
import type { Heat } from "./stage-kinds";
import type { BakeStage } from "./stage-schema";

export const heatName: Record<Heat, string> = {
  still: "Top and bottom",
  fan: "Fan",
  "air-fryer": "Air fryer",
  hob: "Hob",
  grill: "Grill",
  counter: "Counter",
};

export const untilWord: Record<NonNullable<BakeStage["until"]>, string> = {
  set: "until it is set",
  golden: "until it is golden",
  dry: "until its top is dry",
};

const minuteText = (minutes: number): string => `${Math.round(minutes * 2) / 2} min`;

/** A stage in a line: "Fan 190 °C, 20 min, covered". `oven` is what it takes where it says nothing. */
export function stageText(stage: BakeStage, oven: { mode: Heat; celsius: number }): string {
  const mode = stage.mode ?? oven.mode;
  const minutes = stageMinutes(stage);
  const heat = mode === "counter" ? "" : ` ${Math.round(stage.celsius ?? oven.celsius)} °C`;
  return [
    `${heatName[mode]}${heat}`,
    minutes !== null ? minuteText(minutes) : stage.until ? untilWord[stage.until] : "until it is done",
    ...(stage.turned ? ["turned over"] : []),
    ...(stage.topped ? ["topped"] : []),
    ...(stage.covered ? ["covered"] : []),
    ...(stage.free ? ["out of its tin"] : []),
  ].join(", ");
}

/** What of a stage can be seen from outside, as it was baked. */
export interface StageSeen {
  mode: Heat;
  celsius: number;
  covered: boolean;
  free: boolean;
  turned: boolean;
  topped: boolean;
}

const onto: Record<Heat, string> = {
  still: "Into the oven",
  fan: "Into the oven, fan on",
  "air-fryer": "Into the air fryer",
  hob: "Onto the hob",
  grill: "Under the grill",
  counter: "Out onto the counter",
};

const isOven = (mode: Heat): boolean => mode === "still" || mode === "fan" || mode === "grill";

/** What a baker does when one stage goes over into the next: "Cover off, out of its tin". */
export function stageChange(before: StageSeen, now: StageSeen): string {
  const does: string[] = [];
  if (before.mode !== now.mode) {
    if (isOven(before.mode) && isOven(now.mode))
      does.push(now.mode === "grill" ? "grill on" : `${now.mode === "fan" ? "fan on" : "fan off"}`);
    else does.push(onto[now.mode]);
  }
  if (now.mode !== "counter" && isOven(before.mode) && isOven(now.mode) && Math.abs(now.celsius - before.celsius) >= 1)
    does.push(`dial to ${Math.round(now.celsius)} °C`);
  if (now.topped) does.push("put on what lies on top");
  if (now.turned) does.push("turn it over");
  if (now.free && !before.free) does.push("out of its tin, onto the rack");
  if (now.covered !== before.covered) does.push(now.covered ? "cover it" : "cover off");
  const words = does.join(", ");
  return words === "" ? "Goes on" : capital(words);
}

export const layouts = ["covered-first", "free-last", "hob-first", "two-heats", "grill-last", "part-baked"] as const;
export type Layout = (typeof layouts)[number];

export const layoutName: Record<Layout, string> = {
  "covered-first": "Covered, then open",
  "free-last": "Out of its tin at the end",
  "hob-first": "Hob, then oven",
  "two-heats": "Hot, then cooler",
  "grill-last": "Grill at the end",
  "part-baked": "Part-bake, top, finish",
};

const minutes = (share: number, whole: number): number => Math.max(1, Math.round(share * whole));
const dial = (celsius: number): number => Math.min(320, Math.max(60, Math.round(celsius / 5) * 5));

/** Stages to begin from, for a bake that takes so many minutes in this oven; the last one goes on until it is done. */
export function layOut(layout: Layout, whole: number, celsius: number): BakeStage[] {
  switch (layout) {
    case "covered-first":
      return [{ minutes: minutes(0.6, whole), covered: true }, {}];
    case "free-last":
      return [{ minutes: minutes(0.8, whole) }, { free: true }];
    case "hob-first":
      return [{ mode: "hob", minutes: 2 }, {}];
    case "two-heats":
      return [{ celsius: dial(celsius + 15), minutes: minutes(0.25, whole) }, { celsius: dial(celsius - 15) }];
    case "grill-last":
      return [{ until: "set" }, { mode: "grill", minutes: 2 }];
    case "part-baked":
      return [{ minutes: minutes(0.6, whole) }, { mode: "counter", minutes: 10 }, { topped: true }];
  }
}
