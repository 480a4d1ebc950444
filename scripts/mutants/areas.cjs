/** Where a wrong line costs most: what is changed there, line by line, and the tests that should notice. */
module.exports = {
  lift: {
    project: "core",
    tests: ["src/lift/*.test.ts"],
    mutate: ["acids", "air", "as-soda", "charge", "gas", "ledger", "lift", "meaning", "pulls"].map(
      (name) => `packages/core/src/lift/${name}.ts`,
    ),
  },
  label: {
    project: "core",
    tests: ["src/label/label.test.ts", "src/label/eaten.test.ts"],
    mutate: ["gluten", "ingredient-list", "regions", "cautions", "perishable", "nutrition", "cost"].map(
      (name) => `packages/core/src/label/${name}.ts`,
    ),
  },
  balance: {
    project: "core",
    tests: ["src/balance/{balance,target,beliefs,usual}.test.ts"],
    mutate: ["bands", "beliefs", "target", "leave-out", "trade", "usual"].map((name) => `packages/core/src/balance/${name}.ts`),
  },
  measure: {
    project: "core",
    tests: ["src/measure/{measure,number-text,grammar,weigh,part-of-whole,kitchen-talk,said}.test.ts"],
    mutate: ["quantity", "number-text", "range", "units", "weigh", "part-of-whole", "amounts"].map(
      (name) => `packages/core/src/measure/${name}.ts`,
    ),
  },
  access: {
    project: "server",
    tests: ["src/access.test.ts", "src/access-matrix.test.ts"],
    mutate: ["access", "file", "guard", "places", "roles", "tries"].map((name) => `apps/server/src/access/${name}.ts`),
  },
};
