import { spawn, spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { basename, dirname, join, relative, resolve } from "node:path";
import { build, install, orSentence } from "./prepare.mjs";

/**
 * Makes `release/uprise-<version>`, a folder that runs with Node.js alone: the built server and page, the packages that the server needs with their
 * compiled parts, the passcode and the restore as commands. Then tries it in a clean folder: `npm run release`, `npm run release -- --untried`.
 */
const root = resolve(".");
const read = (path) => JSON.parse(readFileSync(path, "utf8"));
const { version } = read("package.json");
const folder = join(root, "release", `uprise-${version}`);

/** The folder of a package as Node.js finds it from another one; null where an optional one is not for this machine. */
function foundFrom(name, from) {
  for (let at = from; ; at = dirname(at)) {
    const here = join(at, "node_modules", name);
    if (existsSync(join(here, "package.json"))) return here;
    if (at === dirname(at)) return null;
  }
}

/** What is only needed to compile a package anew: its compiled part comes along. */
const COMPILERS = new Set(["node-gyp", "prebuild-install", "node-addon-api"]);

/** Folders of all packages that some need, themselves included. Throws when one that is not optional is missing. */
function closureOf(starts) {
  const found = new Set();
  const visit = (name, from, optional) => {
    if (name.startsWith("@uprise/") || COMPILERS.has(name)) return;
    const at = foundFrom(name, from);
    if (at === null) {
      if (optional) return;
      throw new Error(`${name} is not installed; npm ci would bring it.`);
    }
    if (found.has(at)) return;
    found.add(at);
    const { dependencies = {}, optionalDependencies = {}, peerDependencies = {} } = read(join(at, "package.json"));
    for (const one of Object.keys(dependencies)) visit(one, at, one in optionalDependencies);
    for (const one of Object.keys({ ...optionalDependencies, ...peerDependencies })) visit(one, at, true);
  };
  for (const at of starts)
    for (const one of Object.keys(read(join(at, "package.json")).dependencies ?? {})) visit(one, join(root, at), false);
  return [...found].filter((at) => at.startsWith(join(root, "node_modules")) || at.includes("/node_modules/"));
}

/** What nobody needs to run. */
const left = /\.(?:map|md|markdown|tsbuildinfo|cc|d\.[cm]?ts)$|^(?:tests?|docs|examples?|benchmarks?|deps)$/;
const keeps = (path) => !left.test(path) || /licen[cs]e/i.test(basename(path));

async function make() {
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  for (const part of ["apps/server/dist", "apps/web/dist"])
    cpSync(part, join(folder, part), { recursive: true, filter: (path) => !path.endsWith(".map") });
  const packages = closureOf(["apps/server", "packages/core", "packages/contract"]);
  // The least deep first: one inside another has been copied with it.
  for (const at of packages.sort((a, b) => a.length - b.length)) {
    const to = join(folder, relative(root, at));
    if (!existsSync(to)) cpSync(at, to, { recursive: true, dereference: true, filter: (path) => keeps(relative(at, path)) });
  }
  const { build: bundle } = await import("esbuild");
  for (const command of ["passcode", "restore"])
    await bundle({ entryPoints: [`scripts/${command}.ts`], outfile: join(folder, `${command}.cjs`), bundle: true, platform: "node", logLevel: "error", external: ["sqlite3", "sequelize", "umzug", "sharp", "piscina"] }); // prettier-ignore
  const scripts = {
    start: "node apps/server/dist/main.mjs",
    demo: "UPRISE_DEMO=1 node apps/server/dist/main.mjs",
    passcode: "node passcode.cjs",
    restore: "node restore.cjs",
  };
  writeFileSync(
    join(folder, "package.json"),
    `${JSON.stringify({ name: "uprise-release", version, private: true, engines: read("package.json").engines, scripts }, null, 2)}\n`,
  );
  writeFileSync(join(folder, "README.txt"), `Uprise ${version} for ${process.platform} ${process.arch}\n\nnode apps/server/dist/main.mjs      begins at http://127.0.0.1:4173, with its data in ./data\nUPRISE_DEMO=1 before it             fills an empty data folder with the demo\nnode passcode.cjs                   sets a passcode, before others reach it\nnode restore.cjs archive.zip        says what an archive would bring in; --take brings it\n\nNode.js 20.19 or newer, nothing else. A newer version: stop it, put the new folder in the place of this one, move ./data into it, start it.\n`); // prettier-ignore
  return packages.length;
}

/** What a command says that is given nothing or something it must refuse. */
const saysOf = (here, command, input, ...args) => {
  const { stdout, stderr } = spawnSync(process.execPath, [`${command}.cjs`, ...args], { cwd: here, input, encoding: "utf8" });
  return `${stdout}${stderr}`;
};

/** Starts it where nothing else is, asks what a first visitor asks, and ends it. Throws with what went wrong. */
async function tried() {
  const clean = mkdtempSync(join(tmpdir(), "uprise-release-"));
  const here = join(clean, "uprise");
  cpSync(folder, here, { recursive: true });
  const port = 20000 + Math.floor(Math.random() * 20000);
  const server = spawn(process.execPath, ["apps/server/dist/main.mjs"], {
    cwd: here,
    env: { PORT: `${port}`, UPRISE_DEMO: "1", PATH: "" },
    stdio: ["ignore", "pipe", "pipe"],
  });
  let said = "";
  for (const stream of [server.stdout, server.stderr]) stream.on("data", (some) => (said += some));
  try {
    const ask = async (path, body) => {
      const answer = await fetch(
        `http://127.0.0.1:${port}${path}`,
        body && { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) },
      );
      if (!answer.ok) throw new Error(`${path} answered ${answer.status}: ${(await answer.text()).slice(0, 200)}`);
      return answer.text();
    };
    for (let left = 120; !said.includes("stands at"); left--) {
      if (left === 0 || server.exitCode !== null) throw new Error(`It did not start: ${said.slice(-600)}`);
      await new Promise((done) => setTimeout(done, 500));
    }
    const page = await ask("/");
    if (!page.includes("<script")) throw new Error("The page came without its script.");
    const { bake } = JSON.parse(await ask("/api/analyse", { kind: "muffin", batchG: 864 }));
    const { items } = JSON.parse(await ask("/api/formulas"));
    if (!items?.length) throw new Error("The demo is not there.");
    const restore = saysOf(here, "restore", "", "no-such.zip");
    if (!restore.includes("There is no file no-such.zip")) throw new Error(`The restore said: ${restore.slice(-400)}`);
    const passcode = saysOf(here, "passcode", "short\n");
    if (!/ten signs|passcode/i.test(passcode)) throw new Error(`The passcode said: ${passcode.slice(-400)}`);
    return `started in a clean folder without a package manager: the page, ${items.length} formulas of the demo, a muffin done after ${bake.minutes.mid.toFixed(1)} min; its restore and its passcode answer`;
  } finally {
    server.kill();
    await new Promise((done) => (server.exitCode === null && server.signalCode === null ? server.on("exit", done) : done()));
    rmSync(clean, { recursive: true, force: true });
  }
}

// `--built` takes what is built: another program may be serving it.
if (!process.argv.includes("--built"))
  await orSentence(async () => {
    await install();
    await build();
  });
const many = await make();
console.log(`${relative(root, folder)}: ${many} packages`);
if (!process.argv.includes("--untried")) console.log(await tried());
