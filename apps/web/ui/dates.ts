/** Days and times as the application writes them, by the browser's own calendar: “29 Nov”, “29 Nov 2026, 14:05”. */
const written = (parts: Intl.DateTimeFormatOptions) => {
  const form = new Intl.DateTimeFormat("en-GB", { hourCycle: "h23", ...parts });
  return (at: Date): string =>
    form
      .format(at)
      .replace(" at ", ", ")
      .replace(/^(\w+),? (?=\d)/, "$1 ")
      .replace("Sept", "Sep");
};
const clock = { hour: "2-digit", minute: "2-digit" } as const;

export const shortDay = written({ day: "numeric", month: "short" });
export const shortDayClock = written({ day: "numeric", month: "short", ...clock });
export const dayOfYear = written({ day: "numeric", month: "short", year: "numeric" });
export const dayOfYearClock = written({ day: "numeric", month: "short", year: "numeric", ...clock });
export const longDay = written({ weekday: "long", day: "numeric", month: "long" });
export const longDayClock = written({ weekday: "long", day: "numeric", month: "long", ...clock });
export const monthDayClock = written({ day: "numeric", month: "long", ...clock });

const two = (value: number): string => String(value).padStart(2, "0");
/** “2026-11-29”, by the clock of this device. */
export const isoDay = (at: Date): string => `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
/** The same moment of another day. */
export function daysLater(at: Date, days: number): Date {
  const then = new Date(at);
  then.setDate(then.getDate() + days);
  return then;
}
/** ISO 8601 with this device's offset at that moment. */
export function isoWithOffset(at: Date): string {
  const minutes = -at.getTimezoneOffset();
  const offset = `${minutes < 0 ? "-" : "+"}${two(Math.floor(Math.abs(minutes) / 60))}:${two(Math.abs(minutes) % 60)}`;
  return `${isoDay(at)}T${two(at.getHours())}:${two(at.getMinutes())}:${two(at.getSeconds())}${offset}`;
}

const steps = [
  ["year", 365 * 86_400],
  ["month", 30 * 86_400],
  ["day", 86_400],
  ["hour", 3600],
  ["minute", 60],
  ["second", 1],
] as const;
const relative = new Intl.RelativeTimeFormat("en-GB", { numeric: "always" });
/** “3 days ago”. */
export function ago(at: Date, now = new Date()): string {
  const seconds = (now.getTime() - at.getTime()) / 1000;
  const [unit, length] = steps.find(([, size]) => Math.abs(seconds) >= size) ?? ["second", 1];
  return relative.format(-Math.round(seconds / length), unit);
}
