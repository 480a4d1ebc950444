import { bareKitchen, brownWord, builtInShelf, openFormula, simulate, type Formula, type Simulation } from "@uprise/core";
import { act, fireEvent, render, renderHook, screen } from "@testing-library/react";
import { ThemeProvider } from "../../theme/theme";
import { Slider } from "../../ui/slider";
import { BakeSection } from "../instruments/bake-section";
import { bakeSentence, clock, momentSentence, sampleAt, secondsIn } from "../instruments/bake-words";
import { drawingsOf } from "../../workers/isotherms";
import { BakePlayer } from "./bake-player";
import { ManyRuns } from "./many-runs";
import { useBaked } from "./use-baked";
import { WhatIf } from "./what-if";

const formula: Formula = {
  shape: 2,
  title: "Pier loaf",
  kind: "loaf",
  measures: "metric",
  lines: Object.entries({
    "gf-blend-plain": 300,
    xanthan: 2,
    "whole-milk": 230,
    egg: 110,
    "sunflower-oil": 80,
    "white-sugar": 130,
    "powder-aluminium-free": 18,
    salt: 4,
  }).map(([ingredientId, mid], i) => ({ id: `l${i}`, ingredientId, grams: { low: mid, mid, high: mid } })),
  vessel: { shape: "rectangular", lengthMm: 230, widthMm: 130, heightMm: 70, material: "light-metal", lining: "greased" },
  oven: { celsius: 175, mode: "still" },
  process: { method: "muffin", restMinutes: 0 },
  notes: "",
};
const input = openFormula(formula, bareKitchen);
const loaf = simulate(input, builtInShelf, { spread: 0.12, frames: 12 });

describe("readings with a bake", () => {
  test("are the fine bake's when it is there, and the page computes none of it", () => {
    const make = () => input;
    const { result } = renderHook(() => useBaked(make, builtInShelf));
    expect([result.current.analysis?.bake?.fidelity, result.current.baking]).toEqual(["fine", false]);
    expect(result.current.simulation?.reached).toBe(true);
    expect(result.current.analysis?.bake?.minutes.mid).toBeCloseTo(result.current.simulation?.done.mid ?? 0, 9);
    expect(result.current.analysis?.bake?.minutes.mid).toBeCloseTo(loaf.minutes, 0);
  });
  test("what cannot be baked is read all the same, and says why it is not baked", () => {
    const soup = () => ({ ...input, lines: [{ ingredientId: "water", grams: 500 }] });
    const { result } = renderHook(() => useBaked(soup, builtInShelf));
    expect(result.current.analysis).toMatchObject({ bake: null, batch: { massG: 500 } });
    expect([result.current.simulation, result.current.fault]).toEqual([null, null]);
    expect(result.current.unbaked).toMatch(/100 % of this is water/);
  });
  test("an empty sheet is no fault; a pan without a measure is one, and says which", () => {
    const empty = () => ({ ...input, lines: [] });
    const { result: nothing } = renderHook(() => useBaked(empty, builtInShelf));
    expect([nothing.current.analysis, nothing.current.fault]).toEqual([null, null]);
    const panless = () => ({ ...input, vessel: { shape: "round" as const } });
    const { result: told } = renderHook(() => useBaked(panless, builtInShelf));
    expect(told.current.fault).toMatch(/diameterMm/);
  });
});

describe("what if", () => {
  test("the slider tells what it means and hands on what it is moved to; the table holds both bakes", () => {
    const onChange = jest.fn();
    const hotter = simulate({ ...input, oven: { celsius: 200 } }, builtInShelf, { spread: 0, frames: 4 });
    render(
      <ThemeProvider>
        <WhatIf
          formula={formula}
          simulation={loaf}
          other={hotter}
          change={{ warmerK: 25 }}
          onChange={onChange}
          onTake={jest.fn()}
          onDrop={jest.fn()}
        />
      </ThemeProvider>,
    );
    const oven = screen.getByRole("slider", { name: "Oven" });
    expect(oven.getAttribute("aria-valuetext")).toBe("200 °C");
    fireEvent.change(oven, { target: { value: "-10" } });
    expect(onChange).toHaveBeenCalledWith({ warmerK: -10 });
    const row = screen.getByRole("row", { name: /Done after/ });
    expect(row.textContent).toBe(`Done after${Math.round(loaf.minutes)} min${Math.round(hotter.minutes)} min`);
  });
});

describe("the bake in words", () => {
  test.each([
    [0, "0:00 min"],
    [75, "1:15 min"],
    [599, "9:59 min"],
    [3600, "60 min"],
  ])("%d s is %s", (seconds, text) => expect(clock(seconds)).toBe(text));
  test("browning has a word from pale to dark, and never goes back", () => {
    expect([0, 1, 4, 12, 40].map(brownWord)).toEqual(["pale", "light gold", "golden", "deep brown", "dark"]);
  });
  test("on a plate there is no oven", () => {
    const onPlate = { ...loaf, stages: loaf.stages.map((stage) => ({ ...stage, mode: "hob" as const })) };
    expect(momentSentence(onPlate, 1200)).toContain(", on the plate: ");
    expect(momentSentence(loaf, 1200)).toContain(", in the oven: ");
  });
  test("a moment says phase, core, top, heights and how much has set, as the curves have them", () => {
    const i = sampleAt(loaf, 1200);
    expect(loaf.times[i]).toBeLessThanOrEqual(1200);
    expect(loaf.times[i + 1]).toBeGreaterThan(1200);
    expect(momentSentence(loaf, 1200)).toBe(
      `After 20 min, in the oven: core ${Math.round(loaf.coreC[i] ?? 0)} °C, top ${Math.round(loaf.surfaceC[i] ?? 0)} °C; highest ${Math.round(loaf.crownMm[i] ?? 0)} mm, edge ${Math.round(loaf.edgeMm[i] ?? 0)} mm; ${Math.round(100 * (loaf.set[i] ?? 0))} % of the crumb has set.`,
    );
    expect(momentSentence(loaf, 1e9)).toMatch(/on the rack/);
  });
  test("a crown over the rim, a sunken middle and raw crumb are said", () => {
    const low = { ...loaf, section: { ...loaf.section, rimMm: 10 } };
    expect(momentSentence(low, 3000)).toMatch(/\d+ over the rim/);
    expect(bakeSentence({ ...loaf, top: "sunken", gummy: { share: 0.3, side: 0, mm: 22 } })).toMatch(
      /sunken middle.*30 % of the crumb is unset.*22 mm/,
    );
    expect(bakeSentence(loaf)).not.toMatch(/unset/);
  });
});

describe("the section", () => {
  const show = (simulation: Simulation, other: Simulation | null = null) =>
    render(
      <ThemeProvider>
        <BakePlayer simulation={simulation} other={other} />
      </ThemeProvider>,
    );
  test("opens at the oven's door, follows the slider, and its picture says what its sentence says", () => {
    show(loaf);
    const moment = screen.getByTestId("bake-moment").textContent ?? "";
    expect(moment).toBe(momentSentence(loaf, secondsIn(loaf)));
    expect(screen.getByRole("img", { name: moment })).toBeTruthy();
    fireEvent.change(screen.getByRole("slider", { name: "Time since the oven door" }), { target: { value: "900" } });
    expect(screen.getByTestId("bake-moment").textContent).toMatch(/^After 15 min/);
    expect(screen.getByRole("img", { name: /^After 15 min/ })).toBeTruthy();
  });
  test("plays from the start and stops at the end", () => {
    jest.useFakeTimers();
    show(loaf);
    fireEvent.click(screen.getByRole("button", { name: "Play the bake" }));
    expect(screen.getByTestId("bake-moment").textContent).toMatch(/^After 0:00/);
    act(() => void jest.advanceTimersByTime(1500));
    expect(screen.getByTestId("bake-moment").textContent).not.toMatch(/^After 0:00/);
    act(() => void jest.advanceTimersByTime(60_000));
    expect(screen.getByRole("button", { name: "Play the bake" })).toBeTruthy();
    expect(screen.getByTestId("bake-moment").textContent).toMatch(/on the rack/);
    jest.useRealTimers();
  });
  test("isotherms enclose what is hotter, less and less of it, and the crust only grows", () => {
    const areaOf = (rings: number[][]): number =>
      Math.abs(
        rings.reduce((all, ring) => {
          let twice = 0;
          for (let i = 0; i + 3 < ring.length; i += 2)
            twice += (ring[i] ?? 0) * (ring[i + 3] ?? 0) - (ring[i + 2] ?? 0) * (ring[i + 1] ?? 0);
          return all + twice / 2;
        }, 0),
      );
    const drawings = drawingsOf(loaf.section);
    expect(drawings).toHaveLength(loaf.section.frames.length);
    let crust = 0;
    drawings.forEach(({ shades, crust: now }, n) => {
      const areas = shades.map(areaOf);
      areas.forEach((area, i) => expect([n, i, area <= (areas[i - 1] ?? Infinity) + 1e-6]).toEqual([n, i, true]));
      if (loaf.section.frames[n]?.phase === "oven") {
        expect(areaOf(now)).toBeGreaterThanOrEqual(0.8 * crust);
        crust = areaOf(now);
      }
    });
    // A section of one temperature has no line in it but the one around all of it.
    const even = loaf.section.frames.map((frame) => ({ ...frame, celsius: frame.celsius.map(() => 65) }));
    const [plain] = drawingsOf({ ...loaf.section, frames: even });
    const box = areaOf(plain?.shades[0] ?? []);
    expect([areaOf(plain?.shades[2] ?? []), areaOf(plain?.shades[3] ?? [])]).toEqual([box, 0]);
    const half = loaf.section.xMm.at(-1) ?? 0;
    expect(box).toBeGreaterThan(1.9 * half * Math.max(...(even[0]?.z ?? [])));
  });
  test("is the same left and right of the middle, and lies inside its picture", () => {
    const frame = loaf.section.frames[5] as Simulation["section"]["frames"][number];
    const drawing = drawingsOf(loaf.section)[5] ?? null;
    const { container } = render(
      <ThemeProvider>
        <BakeSection section={loaf.section} frame={frame} drawing={drawing} tallestMm={loaf.highestMm} />
      </ThemeProvider>,
    );
    const points = [...container.querySelectorAll("path")].flatMap((path) =>
      [...(path.getAttribute("d") ?? "").matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)].map(
        (match) => [Number(match[1]), Number(match[2])] as const,
      ),
    );
    expect(points.length).toBeGreaterThan(200);
    // Areas go half a step of their raster over the edge, where they are cut off.
    for (const [x, y] of points) {
      expect(x).toBeGreaterThanOrEqual(-4);
      expect(x).toBeLessThanOrEqual(344);
      expect(y).toBeGreaterThanOrEqual(-4);
      expect(y).toBeLessThanOrEqual(204);
    }
    const mirrored = points.filter(([x, y]) => points.some(([u, v]) => Math.hypot(340 - x - u, y - v) < 1.5));
    expect(mirrored.length / points.length).toBeGreaterThan(0.98);
  });
});

test("a slider is the platform's own range with its name, ends and step", () => {
  const onChange = jest.fn();
  render(
    <ThemeProvider>
      <Slider label="Batter in it" value={100} least={50} most={150} step={5} text="100 %" onChange={onChange} />
    </ThemeProvider>,
  );
  const slider = screen.getByRole("slider", { name: "Batter in it" });
  expect(["min", "max", "step"].map((name) => slider.getAttribute(name))).toEqual(["50", "150", "5"]);
  fireEvent.change(slider, { target: { value: "120" } });
  expect(onChange).toHaveBeenCalledWith(120);
});

test("many runs stand as strokes on one line, and say between which minutes four in five of them are done", () => {
  const factors = Array.from({ length: 32 }, (_, k) => 0.8 + (0.4 * k) / 31);
  render(
    <ThemeProvider>
      <ManyRuns runs={{ factors, low: 0.84, high: 1.16 }} minutes={50} width={320} />
    </ThemeProvider>,
  );
  const drawing = screen.getByRole("img", { name: /^32 bakes/ });
  // Evenly from 40 to 60: a tenth of them under 42, a tenth over 58.
  expect(drawing.getAttribute("aria-label")).toMatch(/between 42 and 58 min, the earliest at 40, the latest at 60/);
  expect(drawing.querySelectorAll("line").length).toBe(32 + 2);
});
