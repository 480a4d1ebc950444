import { taller } from "./lay-on";
import type { Phase } from "./probe";
import type { Run } from "./run";

/** The section in one moment, cells as in `Section`. */
export interface Frame {
  second: number;
  phase: Phase;
  celsius: Float64Array;
  bottom: Float64Array;
  thickness: Float64Array;
  widening: Float64Array;
  set: Float64Array;
}

/** Keeps frames at even distances: when there are twice as many as wanted, every other one is dropped. */
export class Recorder {
  frames: Frame[] = [];
  private every = 10;
  private next = 0;
  constructor(private wanted: number) {}
  see(run: Run, second: number, phase: Phase): void {
    if (this.wanted <= 0 || second < this.next) return;
    const { celsius, bottom, thickness, widening, set } = run.section;
    this.frames.push({
      second,
      phase,
      celsius: celsius.slice(),
      bottom: bottom.slice(),
      thickness: thickness.slice(),
      widening: widening.slice(),
      set: set.slice(),
    });
    if (this.frames.length > 2 * this.wanted) {
      this.frames = this.frames.filter((_, i) => i % 2 === 0);
      this.every *= 2;
    }
    this.next = second + this.every;
  }
  /** Rows were put on top: in what was kept before they are there without any height. */
  grow(columns: number, rows: number): void {
    this.frames = this.frames.map((frame) => {
      const before = frame.celsius.length / columns;
      const top = (values: Float64Array): Float64Array => {
        const grown = taller(values, columns, before, rows);
        for (let j = 0; j < columns; j++)
          grown.fill(values[(j + 1) * before - 1] ?? 0, j * (before + rows) + before, (j + 1) * (before + rows));
        return grown;
      };
      const { bottom, thickness } = frame;
      const high = taller(bottom, columns, before, rows);
      for (let j = 0; j < columns; j++) {
        const edge = (j + 1) * before - 1;
        high.fill((bottom[edge] ?? 0) + (thickness[edge] ?? 0), j * (before + rows) + before, (j + 1) * (before + rows));
      }
      return {
        ...frame,
        celsius: top(frame.celsius),
        bottom: high,
        thickness: taller(thickness, columns, before, rows),
        widening: top(frame.widening),
        set: taller(frame.set, columns, before, rows, 1),
      };
    });
  }
}
