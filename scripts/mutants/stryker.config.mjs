import areas from "./areas.cjs";

const area = process.env.UPRISE_AREA;

/** Sentences are not changed (their words are judged by reading), nor what runs once at the start (it would take a process each). */
export default {
  mutate: areas[area].mutate,
  testRunner: "jest",
  jest: { projectType: "custom", configFile: "scripts/mutants/jest.config.cjs", enableFindRelatedTests: false },
  plugins: ["@stryker-mutator/jest-runner"],
  coverageAnalysis: "perTest",
  ignoreStatic: true,
  mutator: { excludedMutations: ["StringLiteral"] },
  ignorePatterns: ["/release", "/data", "/docs", "/build", "dist", ".expo", "/apps/web/public", "/scripts/mutants/node_modules"],
  tempDirName: "tmp/mutants",
  reporters: ["clear-text", "json"],
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false, reportMutants: false, skipFull: false },
  jsonReporter: { fileName: `tmp/mutants-${area}.json` },
  concurrency: 2,
  timeoutMS: 20000,
  allowEmpty: false,
};
