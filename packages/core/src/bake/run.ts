import { GAS_CONSTANT, KELVIN } from "./steam-tables";
import type { Model } from "./model";
import type { Section } from "./section";

/** What stands around the vessel in one moment. SI units and °C. */
export interface Around {
  airC: number;
  /** W/m²K by convection. */
  h: number;
  vapourPa: number;
  /** A hot plate under the vessel, °C, or null on a rack. */
  plateC: number | null;
  /** No pan any more: base and side stand in the air. */
  onRack: boolean;
  /** How much hotter it is under the bake than around it, and how much cooler over it, K. */
  tilt: number;
  /** How much of what the top sees is the element of a grill, 0 to 1. */
  grill: number;
  /** m²K/W of a lid or foil with the air under it, 0 without one; and the share of the vapour that finds its way out past it. */
  cover: number;
  lets: number;
}

export interface Pan {
  /** Emissivity outside. */
  emissivity: number;
  /** Heat that the pan gathers over that of the face under and beside the batter: bare sheet and web are fins. */
  gathers: number;
  /** m²K/W from the batter to the metal: contact, liner, and through the pan. */
  resistance: number;
  /** W/m²K from a hot plate to the pan. */
  plateContact: number;
}

/** What a piece without walls flows by: yield stress in the bowl, the share of it that goes as fat melts, density. SI units. */
export interface Flow {
  yieldPa: number;
  melts: number;
  density: number;
}

/** Everything one bake needs; made once, changed in every step, nothing allocated in between. */
export interface Run {
  section: Section;
  model: Model;
  pan: Pan;
  around: Around;
  pressurePa: number;
  boilingC: number;
  /** Rise of the boiling point while water leaves, K. */
  boilingSpread: number;
  /** Area of the top over its footprint: dome and ragged surface. */
  topFactor: number;
  /** Relative consistency, 1 for a muffin batter; holds gas. */
  consistency: number;
  /** Whether any batter still flows, and whether any crumb still sets. */
  levels: boolean;
  setting: boolean;
  /** What a piece without walls flows by while it is soft, and by how much its foot has grown. */
  flow: Flow | null;
  flown: number;
  /** s since liquid last seeped: it is slow, and moved in longer steps than heat. */
  sinceSeep: number;
  /** Per reaction stage, 1 while it has gas to give. */
  live: Uint8Array;
  /** Temperature of the open surface and of the underside per column, and of the open side per layer, °C. */
  topC: Float64Array;
  baseC: Float64Array;
  sideC: Float64Array;
  /** Of every cell at the start of a step: water activity, resistivity mK/W, J/K with the latent heat of the boiling line it stands on. */
  waterActivity: Float64Array;
  resistivity: Float64Array;
  capacity: Float64Array;
  /** The same without latent heat, J/K: what a cell that cools has. */
  sensible: Float64Array;
  /** Temperature from which such a cell takes up latent heat in this step, °C. */
  boilsFrom: Float64Array;
  /** Heat of the steam that condenses in a cell by the solution of a column, J. */
  condenses: Float64Array;
  /** Share of a cell's conductivity that is vapour crossing its bubbles: it takes its water along. */
  vapour: Float64Array;
  /** Steam made in this step per cell, kg and J. */
  steam: Float64Array;
  steamJ: Float64Array;
  /** What has flowed in and out since the start: J and kg. */
  account: { heatIn: number; vapourOutKg: number; vapourOutJ: number };
  solver: Tridiagonal;
  /** Scratch of the levelling: flow between columns m²/s·s, unset height of every face m. */
  flows: Float64Array;
  /** Scratch of the sweeps: heat over every face of a line, J; of the seeping: its area over the distance that water goes, m. */
  crossed: Float64Array;
  spacing: Float64Array;
  faces: Float64Array;
}

/** One tridiagonal system, lower·x[i−1] + middle·x[i] + upper·x[i+1] = right, solved into `x`; the system itself is left as it is. */
export interface Tridiagonal {
  lower: Float64Array;
  middle: Float64Array;
  upper: Float64Array;
  right: Float64Array;
  inverse: Float64Array;
  x: Float64Array;
}

export function tridiagonal(n: number): Tridiagonal {
  const row = (): Float64Array => new Float64Array(n);
  return { lower: row(), middle: row(), upper: row(), right: row(), inverse: row(), x: row() };
}

/** Thomas' algorithm on the first n rows. */
export function solve({ lower, middle, upper, right, inverse, x }: Tridiagonal, n: number): void {
  let reciprocal = 1 / middle[0]!;
  let before = right[0]! * reciprocal;
  inverse[0] = reciprocal;
  x[0] = before;
  for (let i = 1; i < n; i++) {
    const l = lower[i]!;
    reciprocal = 1 / (middle[i]! - l * upper[i - 1]! * reciprocal);
    before = (right[i]! - l * before) * reciprocal;
    inverse[i] = reciprocal;
    x[i] = before;
  }
  for (let i = n - 2; i >= 0; i--) {
    before = x[i]! - upper[i]! * inverse[i]! * before;
    x[i] = before;
  }
}

const STEFAN = 5.670374e-8;
/** A grill's element, bright orange, °C (800 to 950). */
const ELEMENT_C = 850;
/** A lid or foil is brighter than food outside. */
const COVER_EMISSIVITY = 0.3;

/** What heats an open surface: W/m²K over the whole way, and the temperature it works towards. */
export const outer = { film: 0, celsius: 0 };

/** What stands on a hot plate sees that plate with half of all that its side sees. */
const PLATE_VIEW = 0.5;

/** Air, walls, cover and a grill's element over a surface of so many °C, into `outer`; `top` sees the element, a side the plate it stands on. */
export function over(around: Around, emissivity: number, surfaceC: number, top: boolean): void {
  const airC = top ? around.airC - around.tilt : around.airC;
  if (around.cover > 0) {
    const outside = around.h + radiation(COVER_EMISSIVITY, airC, (airC + surfaceC) / 2);
    outer.film = outside > 0 ? 1 / (1 / outside + around.cover) : 0;
    outer.celsius = airC;
    return;
  }
  if (!top && around.plateC !== null) {
    // The air that climbs along it has been over the plate: its film has the mean of both.
    const plate = PLATE_VIEW * radiation(emissivity, around.plateC, surfaceC);
    const room = (1 - PLATE_VIEW) * radiation(emissivity, airC, surfaceC);
    outer.film = around.h + plate + room;
    const warms = (around.h * (airC + around.plateC)) / 2 + plate * around.plateC + room * airC;
    outer.celsius = outer.film > 0 ? warms / outer.film : airC;
    return;
  }
  const open = top && around.grill > 0 ? 1 - around.grill : 1;
  const film = around.h + open * radiation(emissivity, airC, surfaceC);
  if (open === 1) {
    outer.film = film;
    outer.celsius = airC;
    return;
  }
  const element = around.grill * radiation(emissivity, ELEMENT_C, surfaceC);
  outer.film = film + element;
  outer.celsius = (film * airC + element * ELEMENT_C) / outer.film;
}

/** Heat transfer coefficient by radiation between a surface and surroundings, W/m²K. */
export function radiation(emissivity: number, aC: number, bC: number): number {
  const a = aC + KELVIN;
  const b = bC + KELVIN;
  return emissivity * STEFAN * (a * a + b * b) * (a + b);
}

/** kg of vapour per m³ at a pressure and a temperature, times R: p M / R T without the M / R. */
export const perKelvin = (pa: number, celsius: number): number => pa / (celsius + KELVIN);

export const MASS_OVER_GAS = 0.018015 / GAS_CONSTANT;
