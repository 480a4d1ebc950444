import { spawnSync } from "node:child_process";
import { resolve } from "node:path";

test("the folder of a release runs with Node.js alone: made, copied where nothing else is, started, asked", () => {
  const { status, stdout, stderr } = spawnSync(process.execPath, ["scripts/release.mjs", "--built"], {
    cwd: resolve(__dirname, ".."),
    encoding: "utf8",
    timeout: 240_000,
  });
  expect([status, stderr.split("\n").filter((line) => /error/i.test(line))]).toEqual([0, []]);
  expect(stdout).toMatch(/started in a clean folder without a package manager: the page, [1-9]\d* formulas of the demo/);
  expect(stdout).toMatch(/its restore and its passcode answer/);
}, 300_000);
