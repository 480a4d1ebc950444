/** The files at the root of a part, but for its index, where folders stand after them; without it they stand after all folders. */
export const FRONT = "(front)";

/** The folders of each part in the order in which data flows; nothing imports from a later one. One list for the linter and the graph. */
export const layers = {
  "packages/core/src": [
    "measure",
    "pantry",
    "formula",
    "lift",
    "body",
    "bake",
    "balance",
    "design",
    "plan",
    "live",
    "trial",
    FRONT,
    "picture",
    "label",
    "season",
    "exchange",
  ],
  "apps/server/src": ["store", "archive", "access", "demo", "compute", "devices", "resources"],
  "apps/web": [
    "workers",
    "device",
    "theme",
    "ui",
    "features/wire",
    "features/instruments",
    "features/lift",
    "features/body",
    "features/bake",
    "features/fill",
    "features/balance",
    "features/access",
    "features/label",
    "features/exchange",
    "features/store",
    "features/design",
    "features/reader",
    "features/page",
    "features/formula",
    "features/counter",
    "features/log",
    "features/day",
    "features/season",
    "features/look",
    "features/shell",
    "doors",
    "app",
  ],
};

/** Files at the root of a part that stand before its folders; all others stand after them. */
export const foundations = {
  "packages/core/src": ["errors", "physics", "random"],
  "apps/server/src": ["errors", "settings", "problems", "wire"],
  "apps/web": [],
};
