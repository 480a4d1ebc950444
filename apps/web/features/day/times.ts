import { format, parseISO } from "date-fns";

/** The time of a day on a clock, `05:30`, as the kitchen's own clock shows it. */
export const clockOf = (iso: string): string => format(parseISO(iso), "HH:mm");
export const dateOf = (iso: string): string => format(parseISO(iso), "yyyy-MM-dd");
export const dayWords = (iso: string): string => format(parseISO(iso), "EEEE d MMMM");

/** ISO 8601 with this device's offset on that day. */
export const isoOf = (time: Date | number): string => format(time, "yyyy-MM-dd'T'HH:mm:ssxxx");
/** A date and a clock time as ISO 8601; null where one of them is not whole. */
export function isoFrom(date: string, clock: string): string | null {
  const time = new Date(`${date}T${clock}:00`);
  return Number.isNaN(time.getTime()) ? null : isoOf(time);
}

export const minutesBetween = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 60_000;

export const lengthWords = (minutes: number): string =>
  minutes < 90 ? `${Math.round(minutes)} min` : `${Math.floor(minutes / 60)} h ${Math.round(minutes % 60)} min`;

/** A, B, C …: a bake's mark on the ribbon. */
export const markOf = (index: number): string => String.fromCharCode(65 + (index % 26));
