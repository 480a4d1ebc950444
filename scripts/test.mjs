import { spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { build, install, installChromium, orSentence } from "./prepare.mjs";

/** Format, lint, types, then every test; one line with the counts at the end. A failed check counts as a failed test. */
const REPORT = "node_modules/.uprise/tests.json";
let passed = 0;
let failed = 0;

const check = (name, command, args) => {
  const begun = Date.now();
  console.log(`\n== ${name}`);
  const result = spawnSync(command, args, { stdio: "inherit", env: { ...process.env, FORCE_COLOR: "0" } });
  const good = result.status === 0;
  console.log(`${good ? "ok" : "FAILED"}: ${name}, ${Math.round((Date.now() - begun) / 1000)} s`);
  if (good) passed++;
  else failed++;
};

const jest = (name, projects, more = []) => {
  const begun = Date.now();
  console.log(`\n== ${name}`);
  mkdirSync("node_modules/.uprise", { recursive: true });
  rmSync(REPORT, { force: true });
  const result = spawnSync(
    "node_modules/.bin/jest",
    ["--selectProjects", ...projects, "--json", `--outputFile=${REPORT}`, "--silent=false", ...more],
    { stdio: ["ignore", "ignore", "inherit"] },
  );
  if (!existsSync(REPORT)) {
    console.log(`FAILED: ${name} did not report (${result.status ?? result.signal})`);
    failed++;
    return;
  }
  const report = JSON.parse(readFileSync(REPORT, "utf8"));
  passed += report.numPassedTests;
  failed += report.numFailedTests + report.numRuntimeErrorTestSuites;
  if (result.status !== 0 && report.numFailedTests + report.numRuntimeErrorTestSuites === 0) failed++;
  console.log(
    `${name}: ${report.numPassedTests} passed, ${report.numFailedTests} failed tests in ${Math.round((Date.now() - begun) / 1000)} s`,
  );
};

orSentence(() => {
  install();
  installChromium();
  build();
});
check("format", "node_modules/.bin/prettier", ["--check", "--log-level", "warn", "."]);
check("lint", "node_modules/.bin/eslint", [".", "--max-warnings", "0"]);
check("structure", process.execPath, ["scripts/graph.mjs"]);
for (const project of ["packages/core", "packages/contract", "apps/server", "apps/web", "e2e", "scripts"])
  check(`types of ${project}`, "node_modules/.bin/tsc", ["-p", project]);
jest("unit, server and component tests", ["core", "contract", "server", "web"]);
jest("end-to-end tests", ["e2e"], ["--runInBand"]);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
