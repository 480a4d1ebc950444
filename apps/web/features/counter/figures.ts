/** A length of time on a timer: 1:05:09, 12:30, 0:04; what is over counts up with a plus. */
export function timerText(ms: number): string {
  const over = ms < 0;
  const seconds = Math.floor(Math.abs(ms) / 1000);
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor((seconds % 3600) / 60), seconds % 60];
  const two = (n: number): string => String(n).padStart(2, "0");
  return `${over && seconds > 0 ? "+" : ""}${h > 0 ? `${h}:${two(m)}` : m}:${two(s)}`;
}
