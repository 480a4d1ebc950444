import { existsSync } from "node:fs";
import { rename } from "node:fs/promises";
import { dirname, join, resolve } from "node:path";
import type { RestoreAnswer } from "@uprise/contract";
import { besideOf, readArchive } from "../apps/server/src/archive/read";
import { previewRestore, restore, undoRestore } from "../apps/server/src/archive/restore";
import { Unusable } from "../apps/server/src/errors";
import { settingsFrom } from "../apps/server/src/settings";
import { databaseFile } from "../apps/server/src/store/database";
import { holdFolder, takeAsItIs } from "../apps/server/src/store/folder";
import { openStore } from "../apps/server/src/store/store";

/**
 * Says what an archive would bring into the data folder, brings it in, or undoes that: `npm run restore -- copy.zip`, `… copy.zip --take`,
 * `… --undo ID`. `… copy.zip --anew` puts a database that is damaged aside and begins a new one from the archive; `… --as-it-is` goes on with
 * what a database holds although more was saved once. The server must not run meanwhile; while it runs, the page brings archives in.
 */
const lines = ({ archive, add, newer, back, older, conflict, same, photos, events, flaws, undo }: RestoreAnswer, took: boolean): string[] => {
  const names = (some: RestoreAnswer["add"]): string => some.slice(0, 8).map(({ what, title }) => `${what}: ${title}`).join("; ") + (some.length > 8 ? `; and ${some.length - 8} more` : ""); // prettier-ignore
  const told = (words: string, some: RestoreAnswer["add"]): string[] => (some.length > 0 ? [`${some.length} ${words}: ${names(some)}`] : []);
  return [
    `Archive of ${archive.madeAt} by Uprise ${archive.program}: ${archive.things} things, ${archive.photos} photographs.`,
    ...(flaws.length > 0 ? [`${flaws.length} files of it are missing or damaged, and the rest is whole: ${flaws.slice(0, 8).map(({ path, why }) => `${path}: ${why}`).join(" ")}`] : []),
    ...told(took ? "added" : "would be added", add),
    ...told(took ? "brought to a newer version" : "would be brought to a newer version", newer),
    ...told(took ? "brought back on their list" : "were removed here and would be back on their list", back),
    ...told("are newer here and stay", older),
    ...told("differ in the same version; those here stay", conflict),
    `${same} are the same. ${photos} photographs and ${events} events ${took ? "came" : "would come"} with them.`,
    ...(took ? (undo ? [`Undo it with: npm run restore -- --undo ${undo}`] : ["Nothing had to be written."]) : ["Nothing was written; add --take to do it."]),
  ];
}; // prettier-ignore

/** Puts the database of a folder aside, whatever state it is in. */
async function putAside(dataFolder: string): Promise<string> {
  const file = databaseFile(dataFolder);
  const letGo = await holdFolder(dataFolder);
  const aside = `${file.replace(/\.sqlite$/, "")}.aside-${Date.now()}.sqlite`;
  for (const end of ["", "-wal", "-shm"]) if (existsSync(`${file}${end}`)) await rename(`${file}${end}`, `${aside}${end}`);
  const tally = join(dataFolder, "kitchen.json");
  if (existsSync(tally)) await rename(tally, `${aside}.kitchen.json`);
  await letGo();
  return aside;
}

async function main(args: string[]): Promise<void> {
  const { dataFolder } = settingsFrom(process.env, null);
  if (args.includes("--as-it-is")) {
    const letGo = await holdFolder(dataFolder);
    await takeAsItIs(dataFolder, databaseFile(dataFolder));
    await letGo();
    console.log("The kitchen goes on with what its database holds.");
    return;
  }
  const undo = args.indexOf("--undo");
  const file = args.find((arg, k) => !arg.startsWith("--") && (undo < 0 || k !== undo + 1));
  if (undo < 0 && (file === undefined || !existsSync(file)))
    throw new Unusable(`${file === undefined ? "Which archive?" : `There is no file ${file}.`} npm run restore -- copy.zip would be right; copies are in ${dataFolder}/copies.`); // prettier-ignore
  const path = resolve(file ?? ".");
  const archive = undo >= 0 ? null : await readArchive(path, besideOf(dirname(path)));
  const anew = args.includes("--anew");
  if (anew) console.log(`What was there stands in ${await putAside(dataFolder)} now.`);
  const store = await openStore(dataFolder, anew);
  try {
    if (!archive) {
      const { undone, kept } = await undoRestore(store, dataFolder, args[undo + 1] ?? "");
      console.log(`${undone} things are as they were.${kept.length > 0 ? ` Changed since, and kept: ${kept.join(", ")}.` : ""}`);
      return;
    }
    const take = anew || args.includes("--take");
    console.log(lines(take ? await restore(store, dataFolder, archive) : await previewRestore(store, archive), take).join("\n"));
  } finally {
    archive?.close();
    await store.close();
  }
}

main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
});
