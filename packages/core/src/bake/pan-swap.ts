import type { NamedVessel } from "../pantry/vessel";
import type { Oven, Vessel } from "../pantry/vessel-schema";
import { fillVessel } from "./geometry";
import { FULLEST, LIKED } from "./liked-fill";

/** One pan as a home for a batter that was meant for another. */
export interface PanOption {
  id: string;
  name: string;
  /** How many of them. */
  count: number;
  /** The vessel with its count, as a formula takes it. */
  vessel: Vessel;
  fillFraction: number;
  depthMm: number;
  /** The batch times this fills them as full as the batter likes. */
  scale: number;
  /** Batter that stays when one pan fewer is used and filled as full as it may be, g; 0 where there is no pan fewer. */
  leftG: number;
  /** That batter as muffins of this many grams. */
  leftPieces: number;
  leftPieceG: number;
  /** °C to set, with the reason where it differs from the formula's. */
  celsius: number;
  why: string;
}

const MUFFIN_G = 70;
const MOST_PANS = 6;

/** Kelvin to take off an oven for a pan that passes more heat to the crust, or holds it longer; kitchen rules, confidence B. */
const COOLER: Partial<Record<NonNullable<Vessel["material"]>, { by: number; why: string }>> = {
  glass: { by: 15, why: "Glass holds heat and lets it through: 15 °C less, or the sides are hard before the middle is done." },
  ceramic: { by: 10, why: "Stoneware warms slowly and goes on baking: 10 °C less." },
  "dark-steel": { by: 10, why: "A dark tin takes up more of the oven's glow: 10 °C less." },
};

const materialOf = (vessel: Vessel): NonNullable<Vessel["material"]> => vessel.material ?? "light-metal";

function celsiusFor(oven: Oven, from: Vessel, to: Vessel): { celsius: number; why: string } {
  const before = COOLER[materialOf(from)];
  const after = COOLER[materialOf(to)];
  const shift = (before?.by ?? 0) - (after?.by ?? 0);
  const why =
    shift === 0
      ? ""
      : shift < 0
        ? (after?.why ?? "")
        : "This pan passes less heat to the crust than the other: a little more oven.";
  return { celsius: oven.celsius + shift, why };
}

/**
 * Every pan that one owns as a home for this batter: how many, how full, what is left. Masses in g, density in g/mL. The fullest that suits
 * first. Pieces without a wall keep their mass.
 */
export function panOptions(massG: number, density: number, from: Vessel, oven: Oven, pans: readonly NamedVessel[]): PanOption[] {
  const now = fillVessel(from, massG, density);
  const liked =
    now.heightMm !== null && now.fillFraction >= LIKED.low && now.fillFraction <= LIKED.high ? now.fillFraction : LIKED.mid;
  return pans
    .filter(({ vessel }) => vessel.shape !== "griddle" && from.shape !== "griddle")
    .flatMap(({ id, name, vessel }): PanOption[] => {
      const { celsius, why } = celsiusFor(oven, from, vessel);
      const base = { id, name, celsius, why, leftPieceG: MUFFIN_G };
      if (vessel.shape === "free") {
        const filling = fillVessel(vessel, massG, density);
        return [
          {
            ...base,
            count: filling.pieces,
            vessel: { ...vessel, pieces: filling.pieces },
            fillFraction: 0,
            depthMm: filling.depthMm,
            scale: 1,
            leftG: 0,
            leftPieces: 0,
          },
        ];
      }
      const wells = vessel.pieces ?? 1;
      const one = fillVessel(vessel, massG, density).capacityMl / wells;
      const wanted = massG / density / (one * liked);
      // Cups are filled one by one; a tin of one well is a pan of its own.
      const perCup = vessel.shape === "muffin" || wells > 1;
      let count = Math.max(1, Math.round(wanted));
      if (massG / density / (one * count) > FULLEST) count++;
      if (!perCup && count > MOST_PANS) return [];
      const fitted: Vessel = { ...vessel, pieces: count };
      const filling = fillVessel(fitted, massG, density);
      const fewer = perCup ? Math.floor(count / wells) * wells : count - 1;
      const leftG = fewer >= 1 && fewer < count ? Math.max(0, massG - fewer * one * LIKED.high * density) : 0;
      return [
        {
          ...base,
          count,
          vessel: fitted,
          fillFraction: filling.fillFraction,
          depthMm: filling.depthMm,
          scale: (count * one * liked * density) / massG,
          leftG,
          leftPieces: Math.round(leftG / MUFFIN_G),
        },
      ];
    })
    .sort((a, b) => unlikeness(a, liked) - unlikeness(b, liked));
}

/** Thickness of a piece rolled or patted out to a round of so many mm, mm; mass in g, density in g/mL. */
export const rolledThickness = (pieceG: number, density: number, diameterMm: number): number =>
  (1000 * pieceG) / density / (Math.PI * (diameterMm / 2) ** 2);

/** Pans in which this batter stands nearest to a wanted depth, mm, those that cannot hold it left out; as `panOptions` gives them. */
export function pansForDepth(options: readonly PanOption[], depthMm: number): PanOption[] {
  const off = ({ depthMm: depth }: PanOption): number => Math.abs(Math.log(depth / depthMm));
  return options.filter(({ fillFraction }) => fillFraction <= FULLEST).sort((a, b) => off(a) - off(b));
}

/** How far an option is from how full the batter likes it; more pans count a little against it. */
const unlikeness = (option: PanOption, liked: number): number =>
  option.fillFraction === 0 ? 1 : Math.abs(option.fillFraction - liked) + 0.02 * Math.min(option.count, 12);
