import { COLOUR } from "../bake/browning";
import type { Simulation } from "../bake/simulation-schema";
import type { Edit } from "../formula/edits-schema";
import type { Formula } from "../formula/formula";
import type { BakeStage } from "../formula/stage-schema";

/** What of its colour a bake comes out with that a baker would mend. */
export type ColourTrouble = "base-pale" | "base-dark" | "top-dark" | "top-pale";

export const colourTroubleWords: Record<ColourTrouble, string> = {
  "base-pale": "The underside stays pale.",
  "base-dark": "The underside is dark before the middle is done.",
  "top-dark": "The top is dark before the middle is done.",
  "top-pale": "The top stays pale.",
};

/** Something that may mend it: as edits of the formula, and what it asks of the baker. */
export interface ColourWay {
  id: string;
  say: string;
  cost: string;
  edits: Edit[];
}

type Sheet = Pick<Formula, "kind" | "vessel" | "oven" | "process">;

/** Troubles of a bake as it comes out; what is judged by its inside and eaten soft (bars), or stands in paper cups, may be pale beneath. */
export function colourTroublesOf({ kind, vessel, oven }: Sheet, { browning, reached, pale }: Simulation): ColourTrouble[] {
  if (!reached || oven.mode === "hob") return [];
  const soft = kind === "bar";
  const out: ColourTrouble[] = [];
  if (browning.top >= COLOUR.dark) out.push("top-dark");
  if (pale || (browning.top < COLOUR.pale && !soft)) out.push("top-pale");
  if (browning.base >= COLOUR.dark) out.push("base-dark");
  if (browning.base < COLOUR.pale && !soft && vessel.lining !== "paper-cups") out.push("base-pale");
  return out;
}

/** How much more water than before it may lose, %, and no mending is worth more minutes than this share. */
const MOST_LOST = 4;
const MOST_LONGER = 1.6;

/** Whether a bake with a way taken has the trouble no more and no new one, still done, not dried out and not fallen. */
export function mends(trouble: ColourTrouble, sheet: Sheet, before: Simulation, after: Simulation): boolean {
  const had = new Set(colourTroublesOf(sheet, before));
  const has = colourTroublesOf(sheet, after);
  return (
    after.reached &&
    !has.includes(trouble) &&
    has.every((one) => had.has(one)) &&
    after.loss.oven <= before.loss.oven + MOST_LOST &&
    after.minutes <= MOST_LONGER * before.minutes &&
    (after.top !== "sunken" || before.top === "sunken")
  );
}

const stages = (list: BakeStage[]): Edit => ({ edit: "set-process", set: { stages: list } });
const cooler = ({ oven }: Sheet, by: number): ColourWay[] => {
  const celsius = Math.round((oven.celsius - by) / 5) * 5;
  return celsius < 130 || celsius > 260
    ? []
    : [
        {
          id: `${celsius}`,
          say: `bake at ${celsius} °C`,
          cost: by > 0 ? "longer in the oven" : "the middle sets a little less evenly",
          edits: [{ edit: "set-oven", set: { celsius } }],
        },
      ];
};
const shelf = ({ oven }: Sheet, to: "low" | "high"): ColourWay[] =>
  oven.mode === "air-fryer" || oven.shelf === to
    ? []
    : [{ id: to, say: `bake it on a ${to} shelf`, cost: to === "low" ? "the top is slower" : "the underside is slower", edits: [{ edit: "set-oven", set: { shelf: to } }] }]; // prettier-ignore

/**
 * What a baker would try for a trouble, the least of work first. Nothing of it is promised: each is to be baked before it is offered.
 */
export function colourWays(trouble: ColourTrouble, sheet: Sheet, before: Pick<Simulation, "minutes">): ColourWay[] {
  const { vessel, process } = sheet;
  const { material = "light-metal" } = vessel;
  const free = vessel.shape === "free";
  const walled = !free && vessel.shape !== "griddle";
  const plain = process.stages === undefined;
  const metal = (to: "dark-steel" | "light-metal", say: string): ColourWay[] =>
    material === to || !["light-metal", "dark-steel"].includes(material)
      ? []
      : [{ id: to, say, cost: "needs one", edits: [{ edit: "set-vessel", set: { material: to } }] }];
  const split: ColourWay[] = walled
    ? [
        {
          id: "two",
          say: "share it over two such pans",
          cost: "a second pan, and flatter",
          edits: [{ edit: "set-vessel", set: { pieces: 2 * (vessel.pieces ?? 1) } }],
        },
      ]
    : [];
  switch (trouble) {
    case "top-dark":
      return [
        ...(plain
          ? [
              {
                id: "foil",
                say: "cover it with foil once it is golden",
                cost: "one look more; it stays moister",
                edits: [stages([{ until: "golden" }, { covered: true }])],
              },
            ]
          : []),
        ...cooler(sheet, 15),
        ...cooler(sheet, 30),
        ...shelf(sheet, "low"),
        ...split,
        ...cooler(sheet, 45),
      ];
    case "base-pale":
      return [
        ...shelf(sheet, "low"),
        ...(free && !vessel.preheated
          ? [
              {
                id: "hot-sheet",
                say: "slide it onto a hot sheet",
                cost: "the sheet heats with the oven",
                edits: [{ edit: "set-vessel", set: { preheated: true } } as const],
              },
            ]
          : []),
        ...metal("dark-steel", free ? "use a dark sheet" : "use a dark tin"),
        ...(vessel.lining === "paper" ? [{ id: "bare", say: "grease it in place of paper", cost: "it may stick", edits: [{ edit: "set-vessel", set: { lining: "greased" } } as const] }] : []), // prettier-ignore
        ...(walled && plain && vessel.shape !== "muffin"
          ? [
              {
                id: "free",
                say: "finish it out of its tin, on the rack",
                cost: "turned out hot, and a drier crust",
                edits: [stages([{ minutes: Math.max(1, Math.round(0.85 * before.minutes)) }, { free: true, minutes: Math.max(2, Math.round(0.2 * before.minutes)) }])], // prettier-ignore
              },
            ]
          : []),
        ...(walled && plain && material === "cast-iron"
          ? [
              {
                id: "hob",
                say: "begin it on the hob for 2 minutes",
                cost: "one move more",
                edits: [stages([{ mode: "hob", minutes: 2 }, {}])],
              },
            ]
          : []),
        ...cooler(sheet, 15),
        ...cooler(sheet, 30),
      ];
    case "base-dark":
      return [
        ...shelf(sheet, "high"),
        ...metal("light-metal", free ? "use a light sheet" : "use a light tin"),
        ...(vessel.lining === "paper" || vessel.lining === "paper-cups" ? [] : [{ id: "paper", say: "line it with paper", cost: "paper", edits: [{ edit: "set-vessel", set: { lining: "paper" } } as const] }]), // prettier-ignore
        ...(vessel.preheated
          ? [
              {
                id: "cold",
                say: free ? "let the sheet go in cold" : "let the pan go in cold",
                cost: "a softer crust",
                edits: [{ edit: "set-vessel", set: { preheated: false } } as const],
              },
            ]
          : []),
        ...cooler(sheet, 15),
        ...cooler(sheet, 30),
      ];
    case "top-pale":
      return [
        ...shelf(sheet, "high"),
        ...(plain
          ? [
              {
                id: "grill",
                say: "finish it under the grill for 2 minutes",
                cost: "watched all the while",
                edits: [stages([{ until: "set" }, { mode: "grill", minutes: 2 }])],
              },
            ]
          : []),
        ...cooler(sheet, -15),
        ...cooler(sheet, -30),
      ];
  }
}
