import { spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync } from "node:fs";
import areas from "./mutants/areas.cjs";

/**
 * Changes the code where a wrong line costs most, one place at a time, and counts which changes the tests notice: `npm run mutants`, or of some areas alone
 * `npm run mutants -- lift access`. The tool is installed the first time; a run takes from minutes to an hour an area.
 */
const HERE = "scripts/mutants";
const asked = process.argv.slice(2);
const strange = asked.filter((name) => !(name in areas));
if (strange.length > 0) {
  console.error(`${strange.join(", ")}: there is ${Object.keys(areas).join(", ")}.`);
  process.exit(2);
}

const run = (command, args, options = {}) => {
  const { status, signal } = spawnSync(command, args, { stdio: "inherit", ...options });
  if (status !== 0) throw new Error(`${command} ended with ${status ?? signal}`);
};
if (!existsSync(`${HERE}/node_modules/.bin/stryker`)) run("npm", ["ci"], { cwd: HERE });
mkdirSync("tmp", { recursive: true });

/** What became of the mutants of one area: how many, and those that nothing noticed. */
function outcome(area) {
  const { files } = JSON.parse(readFileSync(`tmp/mutants-${area}.json`, "utf8"));
  const all = Object.entries(files).flatMap(([file, { mutants, source }]) =>
    mutants.map((mutant) => ({ ...mutant, file, line: source.split("\n")[mutant.location.start.line - 1].trim() })),
  );
  const having = (...states) => all.filter(({ status }) => states.includes(status));
  const killed = having("Killed", "Timeout").length;
  return { killed, left: having("Survived", "NoCoverage"), of: killed + having("Survived", "NoCoverage").length };
}

for (const area of asked.length > 0 ? asked : Object.keys(areas)) {
  run(`${HERE}/node_modules/.bin/stryker`, ["run", `${HERE}/stryker.config.mjs`], { env: { ...process.env, UPRISE_AREA: area } });
  const { killed, left, of } = outcome(area);
  for (const { file, location, line, mutatorName, replacement } of left)
    console.log(
      `${file}:${location.start.line} ${mutatorName} -> ${replacement?.replace(/\s+/g, " ").slice(0, 60)}   of   ${line.slice(0, 100)}`,
    );
  console.log(`${area}: ${killed} of ${of} changes noticed, ${Math.round((100 * killed) / of)} %`);
}
