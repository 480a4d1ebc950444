import {
  applyEdit,
  beginKind,
  type Edit,
  type Formula,
  layoutName,
  layOut,
  layouts,
  processSchema,
  simulate,
  stageChange,
} from "@uprise/core";
import { fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { ThemeProvider } from "../../theme/theme";
import { happenings } from "../instruments/bake-words";
import { DoneLine } from "../instruments/done-line";
import { Stages } from "./stages";

const begun = beginKind("loaf", "metric", 900);
let now: Formula;

function Sheet({ first }: { first: Formula }) {
  const [formula, setFormula] = useState(first);
  const edit = (change: Edit): void => {
    now = applyEdit(formula, change);
    setFormula(now);
  };
  return (
    <ThemeProvider>
      <Stages formula={formula} minutes={50} edit={edit} />
    </ThemeProvider>
  );
}
const press = (name: string | RegExp): void => void fireEvent.click(screen.getByRole("button", { name }));

describe("laying out stages", () => {
  test.each(layouts)("%s begins with stages that the store takes, and its last one is open or short", (layout) => {
    render(<Sheet first={begun} />);
    press(layoutName[layout]);
    expect(now.process.stages).toEqual(layOut(layout, 50, begun.oven.celsius));
    expect(processSchema.safeParse(now.process).success).toBe(true);
    expect(screen.getAllByRole("listitem")).toHaveLength(now.process.stages?.length ?? 0);
  });
  test("a stage is opened, its minutes, heat and cover are changed, and what is off is not kept", () => {
    render(<Sheet first={{ ...begun, process: { ...begun.process, stages: [{ minutes: 30, covered: true }, {}] } }} />);
    press("1. Top and bottom 175 °C, 30 min, covered");
    fireEvent.change(screen.getByLabelText("Minutes"), { target: { value: "25" } });
    fireEvent.click(screen.getByRole("radio", { name: "Fan" }));
    fireEvent.click(screen.getByRole("checkbox", { name: "Covered" }));
    expect(now.process.stages).toEqual([{ minutes: 25, mode: "fan" }, {}]);
    fireEvent.click(screen.getByRole("radio", { name: "Until golden" }));
    expect(now.process.stages?.[0]).toEqual({ until: "golden", mode: "fan" });
  });
  test("moved by its buttons a stage changes places, and one that was last gets an end", () => {
    render(
      <Sheet first={{ ...begun, process: { ...begun.process, stages: [{ minutes: 30, covered: true }, { mode: "fan" }] } }} />,
    );
    press(/^1\. /);
    press("Stage 1 later");
    expect(now.process.stages).toEqual([
      { mode: "fan", minutes: 25 },
      { minutes: 30, covered: true },
    ]);
    expect(processSchema.safeParse(now.process).success).toBe(true);
  });
  test("one stage again takes them all away; eight are the most", () => {
    render(
      <Sheet first={{ ...begun, process: { ...begun.process, stages: Array.from({ length: 8 }, () => ({ minutes: 5 })) } }} />,
    );
    expect(screen.queryByRole("button", { name: "Add a stage" })).toBeNull();
    press("One stage again");
    expect(now.process.stages).toBeUndefined();
  });
});

describe("stages as they are baked", () => {
  const simulation = simulate(
    { ...begun, process: { stages: [{ minutes: 20, covered: true }, { minutes: 10, mode: "fan" }, { free: true }] } },
    undefined,
    { spread: 0.1, frames: 0 },
  );
  test("every change stands in the table at its minute, in words of what is done", () => {
    const rows = happenings(simulation, false);
    expect(rows.find(({ key }) => key === "stage 2")).toMatchObject({ what: "Fan on, cover off (stage 2)", when: "20 min" });
    expect(rows.find(({ key }) => key === "stage 3")?.what).toMatch(/^Fan off, out of its tin, onto the rack/);
  });
  test("they are drawn under the line of time, in their proportions", () => {
    const { container } = render(
      <ThemeProvider>
        <DoneLine simulation={simulation} width={340} />
      </ThemeProvider>,
    );
    const widths = [...container.querySelectorAll('rect[height="22"]')].map((rect) => Number(rect.getAttribute("width")));
    expect(widths).toHaveLength(3);
    expect((widths[0] ?? 0) / (widths[1] ?? 1)).toBeCloseTo(2, 1);
  });
  test("what changes between two stages is said once, and nothing where nothing changes", () => {
    const oven = { mode: "still" as const, celsius: 180, covered: false, free: false, turned: false, topped: false };
    expect(stageChange(oven, { ...oven, celsius: 160 })).toBe("Dial to 160 °C");
    expect(stageChange(oven, { ...oven, mode: "grill" })).toBe("Grill on");
    expect(stageChange({ ...oven, mode: "hob" }, oven)).toBe("Into the oven");
    expect(stageChange(oven, { ...oven, mode: "counter" })).toBe("Out onto the counter");
    expect(stageChange(oven, oven)).toBe("Goes on");
  });
});
