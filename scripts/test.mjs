import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { install, installChromium, orSentence } from "./prepare.mjs";

/** Format, lint, types, then every test; one line with the counts at the end. A failed check counts as a failed test. */
const REPORT = "node_modules/.uprise/tests.json";
let passed = 0;
let failed = 0;

/** Runs one check and prints what it said when it has ended. */
const check = ([name, command, args]) =>
  new Promise((resolve) => {
    const begun = Date.now();
    const child = spawn(command, args, { stdio: ["ignore", "pipe", "pipe"], env: { ...process.env, FORCE_COLOR: "0" } });
    let said = "";
    for (const stream of [child.stdout, child.stderr]) stream.on("data", (part) => (said += part));
    const ended = (good) => {
      console.log(`\n== ${name}\n${said}${good ? "ok" : "FAILED"}: ${name}, ${Math.round((Date.now() - begun) / 1000)} s`);
      if (good) passed++;
      else failed++;
      resolve(good);
    };
    child.on("error", (error) => {
      said += error.message;
      ended(false);
    });
    child.on("close", (status) => ended(status === 0));
  });

/** Runs checks two at a time, in their order. Whether all of them are good. */
const checks = async (list) => {
  const waiting = [...list];
  const results = [];
  const worker = async () => {
    for (let next = waiting.shift(); next; next = waiting.shift()) results.push(await check(next));
  };
  await Promise.all([worker(), worker()]);
  return results.every(Boolean);
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
  const again = report.testResults.flatMap(({ assertionResults }) =>
    assertionResults.filter(({ invocations, status }) => status === "passed" && invocations > 1),
  );
  for (const { fullName } of again) console.log(`passed only at the second try: ${fullName}`);
  console.log(
    `${name}: ${report.numPassedTests} passed, ${report.numFailedTests} failed tests in ${Math.round((Date.now() - begun) / 1000)} s`,
  );
};

await orSentence(async () => {
  await install();
  installChromium();
});
const tsc = (project) => [`types of ${project}`, "node_modules/.bin/tsc", ["-p", project]];
await checks([
  ["build", process.execPath, ["scripts/prepare.mjs", "--build"]],
  ["format", "node_modules/.bin/prettier", ["--check", "--log-level", "warn", "."]],
  ["lint", "node_modules/.bin/eslint", [".", "--max-warnings", "0"]],
  ["structure", process.execPath, ["scripts/graph.mjs"]],
  ...["packages/core", "packages/contract", "apps/server", "apps/web", "e2e", "scripts"].map(tsc),
]);
// Two cores: without a word the runner would leave one of them idle.
jest("unit, server and component tests", ["core", "contract", "server", "web"], ["--maxWorkers=2"]);
jest("end-to-end tests", ["e2e"], ["--maxWorkers=2"]);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
