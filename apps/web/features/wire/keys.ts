import type { Formula } from "@uprise/core";

/** Every key under which an answer is kept, with all that the answer depends on. `all` forgets a whole kind. */
export const keys = {
  formulas: { all: ["formulas"] as const, list: (q: string) => ["formulas", "list", q] as const },
  formula: { all: ["formula"] as const, of: (id: string) => ["formula", id] as const },
  versions: { of: (id: string) => ["versions", id] as const },
  book: { all: ["book"] as const, of: (ids: readonly string[]) => ["book", ...ids] as const },
  ingredients: { all: ["ingredients"] as const },
  vessels: { all: ["vessels"] as const },
  trials: { all: ["trials"] as const },
  trial: { of: (id: string) => ["trial", id] as const },
  faults: { of: (asked: unknown) => ["faults", asked] as const },
  next: { of: (asked: unknown) => ["next", asked] as const },
  practice: { of: (seed: number) => ["practice", seed] as const },
  learnt: { all: ["learnt"] as const },
  tastings: { all: ["tastings"] as const },
  packets: { all: ["packets"] as const },
  ovens: { all: ["ovens"] as const },
  bakes: { all: ["bakes"] as const },
  bake: { of: (id: string) => ["bake", id] as const },
  devices: { all: ["devices"] as const },
  plans: { all: ["plans"] as const },
  plan: { of: (id: string) => ["plan", id] as const },
  planned: { of: (day: unknown) => ["planned", day] as const },
  proposals: {
    of: (formula: Formula, kitchen: string, replace: string | null, avoid: readonly string[]) =>
      [
        "proposals",
        replace,
        avoid,
        kitchen,
        formula.kind,
        formula.measures,
        formula.lines,
        formula.vessel,
        formula.oven,
        formula.process,
      ] as const,
  },
};
