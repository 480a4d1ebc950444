/** How many of a resource (hands, mixers, vessels of a sort) are taken in each minute of a day. */
export class Taken {
  private readonly used: Uint8Array;
  constructor(
    readonly most: number,
    horizon: number,
  ) {
    this.used = new Uint8Array(horizon);
  }

  clear(): void {
    this.used.fill(0);
  }

  /** The minute from which nothing is taken any more. */
  freeFrom(): number {
    let minute = this.used.length;
    while (minute > 0 && this.used[minute - 1] === 0) minute--;
    return minute;
  }

  /** Whether so many more are free through [from, to). What lies outside of the day is not. */
  free(from: number, to: number, many = 1): boolean {
    if (from < 0 || to > this.used.length) return false;
    for (let minute = from; minute < to; minute++) if ((this.used[minute] ?? 0) + many > this.most) return false;
    return true;
  }

  add(from: number, to: number, many: number): void {
    const end = Math.min(to, this.used.length);
    for (let minute = Math.max(0, from); minute < end; minute++) this.used[minute] = (this.used[minute] ?? 0) + many;
  }

  /** The latest start of `minutes` in a row that is over by `end` and not before `floor`; null where there is none. */
  latest(minutes: number, end: number, floor: number, many = 1): number | null {
    let start = Math.min(end, this.used.length) - minutes;
    while (start >= floor) {
      let clash = -1;
      for (let minute = start; minute < start + minutes; minute++)
        if ((this.used[minute] ?? 0) + many > this.most) {
          clash = minute;
          break;
        }
      if (clash < 0) return start;
      start = clash - minutes;
    }
    return null;
  }

  /** The earliest start of `minutes` in a row, not before `from`; null where the day ends first. */
  earliest(minutes: number, from: number, many = 1): number | null {
    let start = from;
    while (start + minutes <= this.used.length) {
      let clash = -1;
      for (let minute = start + minutes - 1; minute >= start; minute--)
        if ((this.used[minute] ?? 0) + many > this.most) {
          clash = minute;
          break;
        }
      if (clash < 0) return start;
      start = clash + 1;
    }
    return null;
  }
}
