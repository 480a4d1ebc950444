/** Minutes as an ISO 8601 duration: 95 → "PT1H35M". */
export function durationOf(minutes: number): string {
  const whole = Math.max(0, Math.round(minutes));
  const [hours, rest] = [Math.floor(whole / 60), whole % 60];
  return `PT${hours > 0 ? `${hours}H` : ""}${rest > 0 || hours === 0 ? `${rest}M` : ""}`;
}

const DURATION = /^P(?:(\d+(?:[.,]\d+)?)D)?(?:T(?:(\d+(?:[.,]\d+)?)H)?(?:(\d+(?:[.,]\d+)?)M)?(?:(\d+(?:[.,]\d+)?)S)?)?$/i;

/** Minutes of an ISO 8601 duration of days and less; null for anything else, and for none. */
export function minutesOf(duration: unknown): number | null {
  const match = typeof duration === "string" ? DURATION.exec(duration.trim()) : null;
  if (!match) return null;
  const [days, hours, minutes, seconds] = match.slice(1).map((part) => Number((part ?? "0").replace(",", ".")));
  const all = (days ?? 0) * 1440 + (hours ?? 0) * 60 + (minutes ?? 0) + (seconds ?? 0) / 60;
  return all > 0 ? all : null;
}
