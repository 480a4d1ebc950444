import { act, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { type ReactElement, useState } from "react";
import { dark, light } from "../theme/colours";
import { ThemeProvider, useTheme } from "../theme/theme";
import { Choice } from "./choice";
import { readDevice, writeDevice } from "../device/local";
import { Field } from "./field";
import { NumberField } from "./number-field";
import { Button } from "./press";
import { Check } from "./check";
import { NameSearch } from "./name-search";
import { Guard, reloadOnce } from "./guard";
import { useKeys } from "./use-keys";
import { Busy, Empty, Failed, Loading } from "./state";
import { Why } from "./why";
import { Body, Heading, Title } from "./words";

const show = (element: ReactElement) => render(<ThemeProvider>{element}</ThemeProvider>);

/** Relative luminance and contrast as the accessibility guidelines define them. */
function contrast(a: string, b: string): number {
  const luminance = (hex: string): number => {
    const [r = 0, g = 0, b2 = 0] = [1, 3, 5].map((at) => {
      const c = parseInt(hex.slice(at, at + 2), 16) / 255;
      return c <= 0.03928 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * r + 0.7152 * g + 0.0722 * b2;
  };
  const [high, low] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (high + 0.05) / (low + 0.05);
}

describe("colours", () => {
  test.each([
    ["light", light],
    ["dark", dark],
  ])("%s: every role that carries words stands out from paper and from sunken fields", (_, colours) => {
    for (const role of ["ink", "faint", "soda", "acid", "gas", "set", "heat", "caution", "stop", "good"] as const) {
      expect([role, contrast(colours[role], colours.paper) >= 4.5]).toEqual([role, true]);
      expect([role, contrast(colours[role], colours.sunk) >= 4]).toEqual([role, true]);
    }
    expect(contrast(colours.focus, colours.paper)).toBeGreaterThan(3);
    expect(contrast(colours.paper, colours.ink)).toBeGreaterThan(7);
  });
  test("the two schemes have the same roles", () => expect(Object.keys(dark).sort()).toEqual(Object.keys(light).sort()));
  test("a chosen scheme is kept on the device and taken up again", () => {
    localStorage.clear();
    function Probe() {
      const { isDark, setScheme } = useTheme();
      return <Button onPress={() => setScheme("dark")}>{isDark ? "night" : "day"}</Button>;
    }
    const { unmount } = show(<Probe />);
    fireEvent.click(screen.getByRole("button", { name: "day" }));
    expect(screen.getByRole("button", { name: "night" })).toBeTruthy();
    unmount();
    show(<Probe />);
    expect(screen.getByRole("button", { name: "night" })).toBeTruthy();
    expect(readDevice("scheme")).toBe("dark");
  });
});

describe("fields", () => {
  function Held() {
    const [value, setValue] = useState(175);
    return <NumberField label="Oven" unit="°C" least={60} most={320} value={value} onChange={(next) => setValue(next ?? 0)} />;
  }
  const field = (): HTMLInputElement => screen.getByLabelText("Oven");
  test("a number is taken with point or comma; nonsense and empty say what would be right and leave the value", () => {
    show(<Held />);
    fireEvent.change(field(), { target: { value: "182,5" } });
    fireEvent.blur(field());
    expect(field().value).toBe("182.5");
    for (const typed of ["", "hot", "9", "321"]) {
      fireEvent.change(field(), { target: { value: typed } });
      expect(screen.getByText("From 60 to 320 °C would be right.")).toBeTruthy();
      expect(field().value).toBe(typed);
      expect(field().getAttribute("aria-invalid")).toBe("true");
    }
    fireEvent.change(field(), { target: { value: "190" } });
    expect(screen.queryByText(/would be right/)).toBeNull();
  });
  test("label, hint and error belong to their field for those who hear it", () => {
    show(<Field label="Name" value="" onChange={jest.fn()} error="A name, please." />);
    const input = screen.getByLabelText("Name");
    const told = (input.getAttribute("aria-describedby") ?? "").split(" ").map((id) => document.getElementById(id)?.textContent);
    expect(told).toContain("A name, please.");
  });
});

test("one of a few: the chosen one says so, another is handed on", () => {
  const onChange = jest.fn();
  const options = [
    { value: "a", label: "Grams" },
    { value: "b", label: "Spoons" },
  ] as const;
  show(<Choice label="Amounts in" options={options} value="a" onChange={onChange} />);
  expect(screen.getByRole("radio", { name: "Grams" }).getAttribute("aria-checked")).toBe("true");
  fireEvent.click(screen.getByRole("radio", { name: "Spoons" }));
  expect(onChange).toHaveBeenCalledWith("b");
  expect(screen.getByRole("radiogroup", { name: "Amounts in" })).toBeTruthy();
});

test("a button that cannot be pressed is not", () => {
  const onPress = jest.fn();
  show(
    <Button onPress={onPress} disabled>
      Save
    </Button>,
  );
  fireEvent.click(screen.getByRole("button", { name: "Save" }));
  expect(onPress).not.toHaveBeenCalled();
});

test("states are told: loading and work politely, failure at once with a way out, emptiness with what to do", () => {
  const again = jest.fn();
  show(
    <>
      <Loading what="Fetching" />
      <Busy on what="Baking" />
      <Failed title="It did not come." detail="The server is away." onRetry={again} />
      <Empty title="Nothing yet">
        <Body>Paste a recipe.</Body>
      </Empty>
    </>,
  );
  expect(screen.getAllByRole("status").map((element) => element.getAttribute("aria-live"))).toEqual(["polite", "polite"]);
  expect(screen.getByRole("alert").textContent).toContain("The server is away.");
  fireEvent.click(screen.getByRole("button", { name: "Try again" }));
  expect(again).toHaveBeenCalledTimes(1);
  expect(screen.getByText("Paste a recipe.")).toBeTruthy();
});

test("why: one tap shows what a number was computed from, another puts it away", () => {
  show(
    <Why shown={<Body>76 min</Body>}>
      <Body>heat, water and gas</Body>
    </Why>,
  );
  const button = screen.getByRole("button");
  expect(screen.queryByText("heat, water and gas")).toBeNull();
  fireEvent.click(button);
  expect([screen.getByText("heat, water and gas") !== null, button.getAttribute("aria-expanded")]).toEqual([true, "true"]);
  fireEvent.click(button);
  expect(screen.queryByText("heat, water and gas")).toBeNull();
});

test("headings have their level", () => {
  show(
    <>
      <Title>Store</Title>
      <Heading>Pans</Heading>
    </>,
  );
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe("Store");
  expect(screen.getByRole("heading", { level: 2 }).textContent).toBe("Pans");
});

test("a device that refuses to remember stops nothing", () => {
  const refuse = jest.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
    throw new Error("full");
  });
  expect(() => writeDevice("x", "1")).not.toThrow();
  refuse.mockRestore();
  writeDevice("x", "1");
  expect(readDevice("x")).toBe("1");
  writeDevice("x", null);
  expect(readDevice("x")).toBeNull();
});

describe("by keyboard", () => {
  test("arrows move a choice; one tab stop for all of it", async () => {
    function Held() {
      const [value, setValue] = useState<"a" | "b" | "c">("a");
      return (
        <Choice
          label="Pick"
          options={[
            { value: "a", label: "Ay" },
            { value: "b", label: "Bee" },
            { value: "c", label: "Sea" },
          ]}
          value={value}
          onChange={setValue}
        />
      );
    }
    show(<Held />);
    const radios = screen.getAllByRole("radio");
    const group = screen.getByRole("radiogroup", { name: "Pick" });
    expect([group, ...radios].filter((stop) => stop.tabIndex === 0)).toHaveLength(1);
    act(() => radios[0]?.focus());
    fireEvent.keyDown(document.activeElement as Element, { key: "ArrowRight" });
    await waitFor(() => expect(document.activeElement?.textContent).toBe("Bee"));
  });
  test("a check is switched where it stands", () => {
    const onChange = jest.fn();
    show(<Check label="milk" on={false} onChange={onChange} />);
    const check = screen.getByRole("checkbox", { name: "milk" });
    expect(check.getAttribute("aria-checked")).toBe("false");
    fireEvent.click(check);
    expect(onChange).toHaveBeenCalledWith(true);
  });
  test("what a search finds is walked by arrows and taken by Enter; Escape empties it", () => {
    const onPick = jest.fn();
    const onQuery = jest.fn();
    const found = [
      { id: "oat", name: "Oat flour", aliases: [] },
      { id: "rice", name: "Rice flour", aliases: ["white rice"] },
    ];
    show(<NameSearch label="It means" query="flour" onQuery={onQuery} found={found} onPick={onPick} />);
    const field = screen.getByRole("combobox", { name: "It means" });
    expect(screen.getAllByRole("option")).toHaveLength(2);
    fireEvent.keyDown(field, { key: "ArrowDown" });
    fireEvent.keyDown(field, { key: "ArrowDown" });
    expect(field.getAttribute("aria-activedescendant")).toBe(screen.getAllByRole("option")[1]?.id);
    fireEvent.keyDown(field, { key: "Enter" });
    expect(onPick).toHaveBeenCalledWith(found[1]);
    fireEvent.keyDown(field, { key: "Escape" });
    expect(onQuery).toHaveBeenLastCalledWith("");
  });
});

describe("a fence", () => {
  const quiet = jest.spyOn(console, "error");
  beforeAll(() => void quiet.mockImplementation(() => undefined));
  afterAll(() => quiet.mockRestore());
  test("what breaks inside is told there and can be tried again; what stands beside goes on", () => {
    let broken = true;
    const Fragile = () => {
      if (broken) throw new Error("the beam snapped");
      return <Body>whole again</Body>;
    };
    show(
      <>
        <Body>the sheet</Body>
        <Guard what="This room">
          <Fragile />
        </Guard>
      </>,
    );
    expect(screen.getByText("the sheet")).toBeTruthy();
    expect(screen.getByRole("alert").textContent).toMatch(/This room broke.*kept.*the beam snapped/);
    broken = false;
    fireEvent.click(screen.getByRole("button", { name: "Try again" }));
    expect(screen.getByText("whole again")).toBeTruthy();
  });
  test("a part that a new build took away loads the page anew once, not for ever", () => {
    sessionStorage.clear();
    const reload = jest.fn();
    expect([reloadOnce(100_000, reload), reloadOnce(130_000, reload), reloadOnce(200_000, reload)]).toEqual([true, false, true]);
    expect(reload).toHaveBeenCalledTimes(2);
  });
});

describe("keys of a page", () => {
  const does = { escape: jest.fn(), save: jest.fn(), undo: jest.fn() };
  function Page() {
    useKeys(does);
    return <Field label="Amount" value="1" onChange={() => undefined} />;
  }
  beforeEach(() => Object.values(does).forEach((one) => one.mockReset()));
  test("Escape leaves, Ctrl+S saves and is not the browser's, Ctrl+Z takes back; in a field it is the field's", () => {
    show(<Page />);
    fireEvent.keyDown(document.body, { key: "Escape" });
    expect(fireEvent.keyDown(document.body, { key: "s", ctrlKey: true })).toBe(false);
    fireEvent.keyDown(document.body, { key: "z", metaKey: true });
    fireEvent.keyDown(screen.getByLabelText("Amount"), { key: "z", ctrlKey: true });
    expect([does.escape, does.save, does.undo].map((one) => one.mock.calls.length)).toEqual([1, 1, 1]);
  });
  test("what somebody else has taken is left alone", () => {
    show(<Page />);
    const take = (event: Event): void => event.preventDefault();
    document.addEventListener("keydown", take);
    fireEvent.keyDown(document.body, { key: "Escape" });
    document.removeEventListener("keydown", take);
    expect(does.escape).not.toHaveBeenCalled();
  });
});
