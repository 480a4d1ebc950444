import { normalFrom } from "../random";
import type { Picture } from "./cut-face";

export interface SliceWish {
  pores: number;
  /** Middle radius of a pore, px. */
  radius: number;
  /** Height along the base without pores, px. */
  band: number;
  /** How rough the picture is: 1 as a phone takes it by a window, 0 as drawn. */
  rough?: number;
}

const [WIDTH, HEIGHT] = [360, 260];
const [X0, X1, Y0, Y1] = [40, 320, 40, 220];
const CRUMB = 190;
const GROUND = 30;

/** A slowly changing field of about ±1: the crumb's own mottling, from noise on a coarse grid. */
function mottling(normal: () => number, step: number): (x: number, y: number) => number {
  const across = Math.ceil(WIDTH / step) + 2;
  const grid = Float32Array.from({ length: across * (Math.ceil(HEIGHT / step) + 2) }, normal);
  return (x, y) => {
    const [i, j] = [Math.floor(x / step), Math.floor(y / step)];
    const [fx, fy] = [x / step - i, y / step - j];
    const at = (dx: number, dy: number): number => grid[(j + dy) * across + i + dx] ?? 0;
    return (at(0, 0) * (1 - fx) + at(1, 0) * fx) * (1 - fy) + (at(0, 1) * (1 - fx) + at(1, 1) * fx) * fy;
  };
}

/**
 * A slice of known truth: light crumb with pores in it on dark ground, a band without pores along its base. With `rough` its pores are of different
 * depth with soft edges, the crumb is mottled, the light falls off to one side, and the sensor adds noise.
 */
export function madeSlice(random: () => number, { pores, radius, band, rough = 1 }: SliceWish): { picture: Picture; porosity: number; count: number } {
  const normal = normalFrom(random);
  const depth = new Float32Array(WIDTH * HEIGHT);
  const taken = new Uint8Array(WIDTH * HEIGHT);
  let [count, dark] = [0, 0];
  for (let tries = 0; count < pores && tries < 20 * pores; tries++) {
    const r = radius * (0.7 + 0.6 * random());
    const [cx, cy] = [X0 + 12 + (X1 - X0 - 24) * random(), Y0 + 12 + (Y1 - Y0 - 24 - band) * random()];
    const reach = (visit: (k: number, distance: number) => void, more: number): void => {
      for (let y = Math.floor(cy - r - more); y <= cy + r + more; y++)
        for (let x = Math.floor(cx - r - more); x <= cx + r + more; x++) visit(y * WIDTH + x, Math.hypot(x - cx, y - cy) - r);
    };
    let free = true;
    reach((k) => void (taken[k] === 1 && (free = false)), 3);
    if (!free) continue;
    count++;
    const deep = 0.5 - 0.2 * rough * random();
    const soft = 0.2 + 1.1 * rough;
    reach((k, distance) => {
      if (distance <= 0) {
        taken[k] = 1;
        dark++;
      }
      depth[k] = Math.max(depth[k] ?? 0, deep / (1 + Math.exp((2.2 * distance) / soft)));
    }, 4);
  }
  const mottled = mottling(normal, 9);
  const data = new Uint8ClampedArray(4 * WIDTH * HEIGHT);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const k = y * WIDTH + x;
      const inside = x >= X0 && x < X1 && y >= Y0 && y < Y1;
      const crumb = CRUMB * (1 + 0.03 * rough * mottled(x, y)) * (1 - (depth[k] ?? 0)) * (0.85 + (0.3 * x) / WIDTH);
      const light = (inside ? crumb : GROUND) + (3 + 5 * rough) * normal();
      data.fill(Math.round(light), 4 * k, 4 * k + 3);
      data[4 * k + 3] = 255;
    }
  return { picture: { width: WIDTH, height: HEIGHT, data }, porosity: dark / ((X1 - X0) * (Y1 - Y0)), count };
} // prettier-ignore
