import { isoWithOffset, longDay } from "../../ui/dates";

/** A day's times are told by the clock of its own place, whatever the clock of the device: what stands in the ISO text. */
export const clockOf = (iso: string): string => iso.slice(11, 16);
export const dateOf = (iso: string): string => iso.slice(0, 10);
export const dayWords = (iso: string): string => longDay(new Date(`${dateOf(iso)}T12:00:00`));
export const offsetOf = (iso: string): string => /(Z|[+-]\d\d:?\d\d)$/.exec(iso)?.[1] ?? "Z";

const shiftMs = (offset: string): number => {
  const [, sign = "+", hours = "0", minutes = "0"] = /([+-])(\d\d):?(\d\d)/.exec(offset) ?? [];
  return (sign === "-" ? -1 : 1) * (Number(hours) * 60 + Number(minutes)) * 60_000;
};

/** A moment as ISO 8601 in the offset of another time of the day. */
export const isoLike = (time: number, like: string): string =>
  `${new Date(time + shiftMs(offsetOf(like))).toISOString().slice(0, 19)}${offsetOf(like)}`;

/** ISO 8601 with this device's offset on that day. */
export const isoHere = (time: Date | number): string => isoWithOffset(new Date(time));

/** A date and a clock time in the offset of another time; null where one of them is not whole. */
export function isoFrom(date: string, clock: string, like: string): string | null {
  const iso = `${date}T${clock}:00${offsetOf(like)}`;
  return Number.isNaN(Date.parse(iso)) ? null : iso;
}

export const minutesBetween = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 60_000;

export const lengthWords = (minutes: number): string =>
  minutes < 90 ? `${Math.round(minutes)} min` : `${Math.floor(minutes / 60)} h ${Math.round(minutes % 60)} min`;

/** A, B, C …: a bake's mark on the ribbon. */
export const markOf = (index: number): string => String.fromCharCode(65 + (index % 26));
