import type { OvenMode } from "./job";

/** What stands in an oven and for how long, minutes of the day. */
export interface Booking {
  jobId: string;
  start: number;
  end: number;
  celsius: number;
  mode: OvenMode;
  /** Share of the oven that it fills. */
  load: number;
}

/** An oven as the plan sees it. */
export interface PlanOven {
  id: string;
  name: string;
  modes: readonly OvenMode[];
  /** Minutes from cold to 180 °C. */
  warmMinutes: number;
  racks: number;
  widthMm?: number | undefined;
  depthMm?: number | undefined;
}

/** Bakes this close in temperature stand in one oven, K: less than an ordinary thermostat swings. */
export const SHARE_WITHIN_K = 5;
/** What `warmMinutes` is told for, and where a cold oven begins, °C. */
const WARMED_C = 180;
const COLD_C = 20;
/** An oven with its door ajar cools by so many K a minute; 1.5 to 4, confidence C. */
const COOLS_K = 2.5;

/** Minutes until an oven that stands at one temperature, or cold, holds another. */
export function heatMinutes(oven: PlanOven, toC: number, fromC: number = COLD_C): number {
  const up = toC - fromC;
  return Math.ceil(up >= 0 ? (oven.warmMinutes * up) / (WARMED_C - COLD_C) : -up / COOLS_K);
}

export const sameHeat = (a: Pick<Booking, "celsius" | "mode">, b: Pick<Booking, "celsius" | "mode">): boolean =>
  a.mode === b.mode && Math.abs(a.celsius - b.celsius) <= SHARE_WITHIN_K;

const EPSILON = 1e-9;

/** One oven through a day: what is baked in it when, without two heats at once and without more than it holds. */
export class Heated {
  readonly bookings: Booking[] = [];
  constructor(readonly oven: PlanOven) {}

  /**
   * Whether it can be booked; if not, the first minute from which it is worth asking again. `from` is when the cold oven may be switched on.
   * With `lead` the vessel heats in it before.
   */
  ask(wanted: Booking, from: number): { after: Booking | null; heating: number } | { again: number } {
    let after: Booking | null = null;
    let load = wanted.load;
    let again = Infinity;
    for (const there of this.bookings) {
      if (there.start < wanted.end && there.end > wanted.start) {
        if (!sameHeat(there, wanted)) return { again: wanted.start + Math.max(1, there.end - wanted.start) };
        load = Math.max(load, this.fullest(wanted, there));
        again = Math.min(again, there.end);
      } else if (there.end <= wanted.start) {
        if (after === null || there.end > after.end) after = there;
      } else if (!sameHeat(there, wanted)) {
        const change = heatMinutes(this.oven, there.celsius, wanted.celsius);
        if (there.start - wanted.end < change) return { again: there.end };
      }
    }
    if (load > 1 + EPSILON) return { again: Math.max(wanted.start + 1, again) };
    const beside = this.bookings.some((there) => there.start <= wanted.start && there.end > wanted.start);
    if (beside) return { after: null, heating: 0 };
    const heating = after === null ? heatMinutes(this.oven, wanted.celsius) : sameHeat(after, wanted) ? 0 : heatMinutes(this.oven, wanted.celsius, after.celsius); // prettier-ignore
    const ready = (after === null ? from : after.end) + heating;
    return wanted.start < ready ? { again: ready } : { after, heating };
  }

  /** The fullest the oven is where two bookings meet, with the wanted one. */
  private fullest(wanted: Booking, there: Booking): number {
    const at = Math.max(wanted.start, there.start);
    return this.bookings.reduce((sum, one) => (one.start <= at && one.end > at ? sum + one.load : sum), wanted.load);
  }

  book(booking: Booking): void {
    this.bookings.push(booking);
  }

  clear(): void {
    this.bookings.length = 0;
  }

  /** How often it is brought from one heat to another; its first heating is none. */
  changes(): number {
    const inTime = [...this.bookings].sort((a, b) => a.start - b.start || a.end - b.end);
    let count = 0;
    for (let k = 1; k < inTime.length; k++) {
      const [before, now] = [inTime[k - 1], inTime[k]];
      if (before && now && !sameHeat(before, now)) count++;
    }
    return count;
  }
}
