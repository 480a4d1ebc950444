import { type Early, ingredientsPath, listPath, ovensPath, SESSION } from "../device/first-asks";

/** The scripts of the rooms by the names of their doors, written in when the page is built. */
declare const DOORS: Record<string, string>;

// Run before the page's script is here: what the page at this address will ask first is asked meanwhile, so that nothing waits in turn.
const [, place = "", id = ""] = location.pathname.split("/");
const shelves = [ingredientsPath(1), ovensPath(1)];
const first: Record<string, { door: string; asks: string[] }> = {
  formulas: { door: "formulas", asks: [listPath("", 1)] },
  bench: { door: "bench", asks: id === "" ? [] : [`/api/formulas/${id}`, ...shelves] },
  read: { door: "reader", asks: shelves },
  page: { door: "reader", asks: shelves },
  day: { door: "bench", asks: [] },
  counter: { door: "counter", asks: [] },
  log: { door: "log", asks: [] },
  store: { door: "store", asks: [] },
};
const here = first[place];
(globalThis as Early).upriseEarly = new Map([SESSION, ...(here?.asks ?? [])].map((path) => [path, fetch(path).catch(() => null)]));
const script = here && DOORS[here.door];
if (script) {
  const link = document.createElement("link");
  link.rel = "preload";
  link.as = "script";
  link.href = script;
  document.head.append(link);
}
