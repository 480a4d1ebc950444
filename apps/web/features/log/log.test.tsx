import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import type { Practice, StoredTrial } from "@uprise/contract";
import { beginKind, type Diagnosis, type FaultRemedy, type Formula, tastingCodes, type Trial } from "@uprise/core";
import type { ReactNode } from "react";
import { ThemeProvider } from "../../theme/theme";
import { wire, WireError } from "../wire/client";
import { CompareScreen } from "./compare-screen";
import { JudgeScreen } from "./judge-screen";
import { LearntScreen } from "./learnt-screen";
import { LogScreen } from "./list-screen";
import { afterGuess, dueFamilies, type Scores } from "./practice-kept";
import { PracticeScreen } from "./practice-screen";
import { TastingScreen } from "./tasting-screen";
import { TrialScreen } from "./trial-screen";
import { askedOf, editsOf } from "./use-log";

jest.mock("react-native-gifted-charts", () => ({ LineChart: () => null }));

const mockNavigate = jest.fn();
const mockReplace = jest.fn();
jest.mock("expo-router", () => {
  const { createElement } = jest.requireActual<{ createElement: (...args: unknown[]) => ReactNode }>("react");
  return {
    useRouter: () => ({ navigate: mockNavigate, replace: mockReplace }),
    Link: ({ children, href }: { children: ReactNode; href: string }) => createElement("a", { href }, children),
  };
});

const times = { version: 1, createdAt: "2026-11-20T06:00:00Z", updatedAt: "2026-11-20T06:00:00Z" };
const loaf: Formula = beginKind("loaf", "metric", 900);
const trialOf = (title: string, more: Partial<Trial> = {}): Trial => ({
  title,
  formulaId: "pear",
  formulaVersion: 1,
  formula: loaf,
  at: "2026-11-20T06:00:00Z",
  measured: { heightsMm: [40, 58, 66, 60, 44], minutes: 60 },
  seen: [],
  scores: { top: 2, moistness: 3 },
  notes: "",
  photos: [],
  tags: [],
  predicted: { minutes: 62, coreC: 96, lossPercent: 7.5, heightsMm: [42, 60, 64, 60, 42], widthMm: 120, ph: 7 },
  ...more,
});
const stored = (id: string, trial: Trial): StoredTrial => ({ ...times, id, trial });
const log = [
  stored("good", trialOf("Pear loaf, good", { at: "2026-11-22T06:00:00Z" })),
  stored("raw", trialOf("Pear loaf, raw", { scores: { top: 0, moistness: 6 }, tags: ["Saturday"], at: "2026-11-21T06:00:00Z" })),
  stored("plain", trialOf("Scones, plain", { formulaId: "scones", notes: "from the freezer", scores: { top: 1 } })),
];

beforeEach(() => {
  localStorage.clear();
  jest.spyOn(wire, "trials").mockResolvedValue(log);
  jest.spyOn(wire, "readTrial").mockImplementation(async (id) => {
    const found = log.find((one) => one.id === id);
    if (!found) throw new WireError(404, "There is no such trial.");
    return found;
  });
  jest.spyOn(wire, "ingredients").mockResolvedValue([]);
  jest.spyOn(wire, "ovens").mockResolvedValue([]);
  jest.spyOn(wire, "packets").mockResolvedValue([{ ...times, id: "p", packet: { ingredientId: "powder-aluminium-free", name: "Tub", sizeG: 1000, currency: "EUR", openedOn: "2026-01-20" } }]); // prettier-ignore
  jest.spyOn(wire, "calibrate").mockResolvedValue({ learnt: [], trials: 3 });
  jest
    .spyOn(wire, "readFormula")
    .mockResolvedValue({ ...times, id: "pear", version: 4, formula: { ...loaf, notes: "changed since" } });
});
afterEach(() => {
  jest.restoreAllMocks();
  mockNavigate.mockReset();
  mockReplace.mockReset();
});

const show = (node: ReactNode): void =>
  void render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <ThemeProvider>{node}</ThemeProvider>
    </QueryClientProvider>,
  );

test("the log is searched in names, faults and notes, sorted by score, narrowed by tag, and picked from", async () => {
  show(<LogScreen />);
  await screen.findByText("Pear loaf, good");
  const titles = (): string[] => within(screen.getByRole("list", { name: "Trials" })).getAllByRole("listitem").map((row) => row.textContent?.replace(/\d.*$/, "") ?? ""); // prettier-ignore
  expect(titles()).toEqual(["Pear loaf, good", "Pear loaf, raw", "Scones, plain"]);
  fireEvent.click(screen.getByRole("radio", { name: "Worst" }));
  expect(titles()[0]).toBe("Pear loaf, raw");
  fireEvent.change(screen.getByLabelText("Search 3 trials"), { target: { value: "freezer" } });
  expect(titles()).toEqual(["Scones, plain"]);
  fireEvent.change(screen.getByLabelText("Search 3 trials"), { target: { value: "sunken" } });
  expect(titles()).toEqual(["Pear loaf, raw"]);
  fireEvent.change(screen.getByLabelText("Search 3 trials"), { target: { value: "" } });
  fireEvent.click(screen.getByRole("checkbox", { name: "Saturday" }));
  expect(titles()).toEqual(["Pear loaf, raw"]);
  fireEvent.click(screen.getByRole("checkbox", { name: "Saturday" }));
  for (const box of screen.getAllByRole("checkbox", { name: "Pick" }).slice(0, 2)) fireEvent.click(box);
  fireEvent.click(screen.getByRole("button", { name: "Compare these 2" }));
  expect(mockNavigate).toHaveBeenCalledWith("/log/compare?ids=raw,plain");
});

test("a log that is empty says what a trial is; one that does not come says so", async () => {
  jest.spyOn(wire, "trials").mockResolvedValue([]);
  show(<LogScreen />);
  await screen.findByText("Nothing is judged yet.");
  jest.spyOn(wire, "trials").mockRejectedValue(new WireError(0, "No answer from the server."));
  show(<LogScreen />);
  await screen.findByText("The log did not come.");
});

test("a judgement: scales by word, a fault besides, measures with what is doubted, and what is kept passes the contract", async () => {
  const create = jest.spyOn(wire, "createTrial").mockImplementation(async (id, trial) => stored(id, trial));
  show(<JudgeScreen formulaId="pear" />);
  fireEvent.click(await screen.findByRole("button", { name: "Top: sunken" }));
  fireEvent.click(screen.getByRole("button", { name: "Soapy: plain" }));
  fireEvent.click(screen.getByRole("button", { name: "Soapy: plain" }));
  fireEvent.click(screen.getByText("Something else was wrong"));
  fireEvent.click(screen.getByRole("checkbox", { name: "Soggy base" }));
  fireEvent.click(screen.getByRole("radio", { name: "wet" }));
  fireEvent.change(screen.getByLabelText("Mass into the oven"), { target: { value: "800" } });
  fireEvent.change(screen.getByLabelText("Mass out of it"), { target: { value: "880" } });
  screen.getByText(/were the two exchanged/);
  fireEvent.change(screen.getByLabelText("Mass out of it"), { target: { value: "736" } });
  screen.getByText("Loss 8.0 %.");
  fireEvent.click(screen.getByRole("checkbox", { name: "Heights at five places across" }));
  for (const [label, value] of [["Edge", "40"], ["Quarter", "58"], ["Middle", "66"], ["Quarter, other side", "60"], ["Edge, other side", "44"]] as const) fireEvent.change(screen.getByLabelText(label), { target: { value } });
  screen.getByText("Volume index 184 mm, symmetry 14 mm, uniformity -2 mm.");
  fireEvent.click(screen.getByText("A cup or spoon was weighed"));
  fireEvent.change(screen.getByLabelText(/^A cup of/), { target: { value: "150" } });
  screen.getByText(/^The powder was open for \d+(\.\d)? months/);
  fireEvent.click(screen.getByRole("button", { name: "Keep this trial" }));
  await waitFor(() => expect(create).toHaveBeenCalledTimes(1));
  const [, trial] = create.mock.calls[0] ?? [];
  expect(trial?.scores).toEqual({ top: 0 });
  expect(trial?.seen).toEqual([{ symptomId: "soggy-base", degree: 3 }]);
  expect(trial?.measured).toEqual({ massInG: 800, massOutG: 736, heightsMm: [40, 58, 66, 60, 44] });
  expect(trial?.cups?.map(({ ingredientId, weighedG }) => [ingredientId, weighedG])).toEqual([["gf-blend-plain", 150]]);
  expect(trial?.powderAgeMonths).toBeGreaterThan(9);
  expect([trial?.formulaId, trial?.formulaVersion]).toEqual(["pear", 4]);
  await waitFor(() => expect(mockReplace).toHaveBeenCalled());
}); // prettier-ignore

const remedy: FaultRemedy = {
  title: "Less soda", why: "", changes: [{ ingredientId: "powder-aluminium-free", fromG: 20, toG: 15 }], lines: [], allergensAdded: [], allergensRemoved: [],
  before: {} as FaultRemedy["before"], after: {} as FaultRemedy["after"], bake: { before: "60 min", after: "61 min" },
}; // prettier-ignore
const diagnosis: Diagnosis = {
  causes: [
    { id: "too-much-soda", family: "lift", words: "More soda than the acids meet", probability: 0.8, for: [{ what: "Soapy", value: "plain", weight: 2 }], against: [], tell: "A pH strip.", next: "Less soda.", remedy, source: "stoichiometry", confidence: "A" },
    { id: "oven-hot", family: "oven", words: "The oven is hotter than its dial", probability: 0.1, for: [], against: [], tell: "A thermometer.", experiment: "oven-thermometer", next: "Cooler.", source: "kitchen rule", confidence: "C" },
  ],
  sound: 0.02,
  unknown: 0.3,
  unexplained: ["Tunnels"],
}; // prettier-ignore

test("causes stand with their evidence and what tells them apart; the remedy becomes the formula's next version", async () => {
  jest.spyOn(wire, "faults").mockResolvedValue(diagnosis);
  const change = jest.spyOn(wire, "changeFormula").mockResolvedValue({ ...times, id: "pear", version: 5, formula: loaf });
  show(<TrialScreen id="raw" />);
  await screen.findByText("More soda than the acids meet");
  screen.getByText("Soapy: plain");
  screen.getByText("strongly");
  screen.getByText("To tell it from “the oven is hotter than its dial”: A pH strip.");
  screen.getByText("In 30 of 100 such cases it is nothing on this list.");
  screen.getByText("Not explained by any of these: tunnels.");
  fireEvent.click(screen.getByRole("button", { name: "Take it to the bench: Less soda" }));
  await waitFor(() => expect(mockNavigate).toHaveBeenCalledWith("/bench/pear"));
  const [id, version, input] = change.mock.calls[0] ?? [];
  expect([id, version, input?.reason]).toEqual(["pear", 4, "Less soda, after “Pear loaf, raw”"]);
  // It was baked as version 1; what was changed since stays in the next one.
  expect(input?.notes).toBe("changed since");
  fireEvent.click(screen.getByText("The oven is hotter than its dial"));
  fireEvent.click(screen.getByText(/^Try it out: Does the oven/));
  screen.getByText(/^1\. Set 180 °C/);
});

test("a trial that is gone, and one whose causes do not come, are told", async () => {
  show(<TrialScreen id="nobody" />);
  await screen.findByText("There is no such trial.");
  jest.spyOn(wire, "faults").mockRejectedValue(new WireError(503, "The server has too much to compute."));
  show(<TrialScreen id="raw" />);
  await screen.findByText("No cause was looked for.");
});

test("what is asked of a trial: what was looked for and is not there too; edits of a remedy leave the oven's profile alone", () => {
  const asked = askedOf(trialOf("x", { scores: { top: 0 }, seen: [{ symptomId: "soapy", degree: 2 }] }));
  expect(asked.seen).toEqual(expect.arrayContaining([{ symptomId: "soapy", degree: 2 }, { symptomId: "sunk-middle", degree: 2 }, { symptomId: "peaked", degree: 0 }]));
  const [edit] = editsOf({ ...remedy, changes: [], set: { oven: { celsius: 160, biasK: 14, swingK: 8 } } });
  expect(edit).toEqual({ edit: "set-oven", set: { celsius: 160 }, clear: ["shelf"] });
}); // prettier-ignore

test("trials compared: the oldest first, readings in small pictures, what was changed", async () => {
  show(<CompareScreen ids={["good", "raw"]} />);
  await screen.findByText("2 trials compared");
  screen.getByText("A Pear loaf, raw", { normalizer: (text) => text.replace(/\s+/g, " ").trim() });
  expect(screen.getByRole("img", { name: /^Volume index: A 184, B 184 mm$/ })).toBeTruthy();
  screen.getByText("Nothing in formula, process, pan or oven: what differs came from the doing.");
  show(<CompareScreen ids={["good"]} />);
  screen.getByText("Two trials or more are compared.");
});

test("practice: a check, a guess, and what was missed comes back sooner", async () => {
  const made: Practice = {
    seed: 1, formula: loaf, seen: [{ symptomId: "dark-top", degree: 2 }, { symptomId: "soapy", degree: 0 }],
    measured: { coreC: 99, minutes: 60, massInG: 900, massOutG: 830 }, kitchen: {}, planned: { heightsMm: [40, 60, 64, 60, 40], minutes: 62, targetCoreC: 96, lossPercent: 7 },
    heightsMm: [40, 60, 70, 60, 40], widthMm: 120, answer: { id: "oven-hot", family: "oven", words: "The oven is hotter than its dial", tell: "A thermometer." },
  };
  jest.spyOn(wire, "practice").mockResolvedValue(made);
  jest.spyOn(wire, "faults").mockResolvedValue(diagnosis);
  show(<PracticeScreen />);
  await screen.findByText("Dark top: dark");
  expect(screen.queryByText(/Soapy/)).toBeNull();
  expect(document.body.textContent).not.toContain("hotter than its dial");
  fireEvent.click(screen.getByText("The core when it came out"));
  screen.getByText("The core when it came out: 99 °C; its target is 96 °C.");
  fireEvent.click(screen.getByRole("radio", { name: "Pan" }));
  fireEvent.click(screen.getByRole("button", { name: "A dark pan" }));
  await screen.findByText("No. It was: The oven is hotter than its dial.");
  screen.getByText("Oven: 0 of 1");
  expect(JSON.parse(localStorage.getItem(Object.keys(localStorage).find((key) => key.includes("practice")) ?? "") ?? "{}")).toMatchObject({ oven: { asked: 1, right: 0 } });
  // A sound bake is in none of the families, and is left alone by saying so.
  cleanup();
  jest.spyOn(wire, "practice").mockResolvedValue({ ...made, seed: 6, seen: [], answer: { id: "nothing", family: null, words: "Nothing was wrong", tell: "All as expected." } });
  show(<PracticeScreen />);
  await screen.findByText("Nothing was noted on it.");
  fireEvent.click(screen.getByRole("button", { name: "Nothing was wrong" }));
  await screen.findByText("Right, with 0 checks: Nothing was wrong.");
  screen.getByText("Sound bakes left alone: 1 of 1");
  // Missed: the oven comes next, alone; hit: it is put off for twice as long each time.
  let scores: Scores = afterGuess({}, "oven", false);
  scores = afterGuess(scores, "pan", true);
  expect(dueFamilies(scores)).toEqual(["oven"]);
  scores = afterGuess(scores, "oven", true);
  expect(dueFamilies(scores)).not.toContain("oven");
  expect([scores.oven?.gap, afterGuess(scores, "oven", true).oven?.gap]).toEqual([4, 8]);
}); // prettier-ignore

test("what was learnt is used only when it is said, and undone", async () => {
  const oven = { id: "oven:deck:still", kind: "oven" as const, of: "deck", mode: "still", value: { low: 5, mid: 9, high: 13 }, before: { low: -15, mid: 0, high: 15 }, from: 6, words: "Your oven seems 9 °C hotter than thought, between 5 and 13, from 6 bakes." }; // prettier-ignore
  jest.spyOn(wire, "calibrate").mockResolvedValue({ trials: 6, learnt: [{ ...oven, accepted: false }] });
  const accept = jest.spyOn(wire, "acceptLearnt").mockResolvedValue({ trials: 6, learnt: [{ ...oven, accepted: true }] });
  const undo = jest.spyOn(wire, "undoLearnt").mockResolvedValue({ trials: 6, learnt: [{ ...oven, accepted: false }] });
  show(<LearntScreen />);
  await screen.findByText(oven.words);
  expect(screen.queryByText("In use")).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: /^Use this for the oven/ }));
  await screen.findByText("In use");
  fireEvent.click(screen.getByRole("button", { name: /^Undo/ }));
  await waitFor(() => expect(screen.queryByText("In use")).toBeNull());
  expect([accept.mock.calls[0]?.[0], undo.mock.calls[0]?.[0]]).toEqual(["oven:deck:still", "oven:deck:still"]);
});

test("a tasting hides names behind codes, keeps scores as they are given, and tells the difference with its chance", async () => {
  const round = {
    title: "Which?",
    question: "How much?",
    seed: 7,
    samples: [{ name: "Old loaf" }, { name: "New loaf" }],
    tasters: [],
  };
  jest.spyOn(wire, "tastings").mockResolvedValue([{ ...times, id: "r", tasting: round }]);
  let version = 1;
  const change = jest.spyOn(wire, "changeTasting").mockImplementation(async (id, was, tasting) => {
    expect(was).toBe(version);
    return { ...times, id, version: ++version, tasting };
  });
  show(<TastingScreen />);
  fireEvent.click(await screen.findByText("Which?"));
  for (const name of ["Ada", "Ben", "Cem", "Dot", "Eva", "Fay"]) {
    fireEvent.change(screen.getByLabelText("Next taster"), { target: { value: name } });
    fireEvent.click(screen.getByRole("button", { name: "Taste" }));
    expect(screen.queryByText(/loaf/)).toBeNull();
    const samples = screen.getAllByRole("radiogroup", { name: /^Sample \d{3}$/ });
    const codes = samples.map((sample) => sample.getAttribute("aria-label")?.slice(7) ?? "");
    const [first] = tastingCodes(2, 7);
    for (const [k, sample] of samples.entries()) fireEvent.click(within(sample).getByRole("radio", { name: codes[k] === first ? "2" : "5" })); // prettier-ignore
    fireEvent.click(screen.getByRole("button", { name: "Done; hand it on" }));
  }
  fireEvent.click(screen.getByRole("button", { name: "Tell what they were" }));
  // Six tasters of one mind: 2 of 64 ways.
  await screen.findByText(/^New loaf was liked best, and that is more than noise: .* in 3 of 100 such rounds/);
  await waitFor(() => expect(change).toHaveBeenCalledTimes(18));
  expect(change.mock.calls.at(-1)?.[2].tasters.every(({ scores }) => scores.join() === "2,5")).toBe(true);
});
