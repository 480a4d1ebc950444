import { existsSync } from "node:fs";
import type { RestoreAnswer } from "@uprise/contract";
import { readArchive } from "../apps/server/src/archive/read";
import { previewRestore, restore, undoRestore } from "../apps/server/src/archive/restore";
import { settingsFrom } from "../apps/server/src/settings";
import { openStore } from "../apps/server/src/store/store";

/** Says what an archive would bring into the data folder, brings it in, or undoes that: `npm run restore -- copy.zip`, `… copy.zip --take`, `… --undo ID`. */
const lines = ({ archive, add, newer, older, conflict, same, photos, events, undo }: RestoreAnswer, took: boolean): string[] => {
  const names = (some: RestoreAnswer["add"]): string => some.slice(0, 8).map(({ what, title }) => `${what}: ${title}`).join("; ") + (some.length > 8 ? `; and ${some.length - 8} more` : ""); // prettier-ignore
  const told = (words: string, some: RestoreAnswer["add"]): string[] => (some.length > 0 ? [`${some.length} ${words}: ${names(some)}`] : []);
  return [
    `Archive of ${archive.madeAt} by Uprise ${archive.program}: ${archive.things} things, ${archive.photos} photographs.`,
    ...told(took ? "added" : "would be added", add),
    ...told(took ? "brought to a newer version" : "would be brought to a newer version", newer),
    ...told("are newer here and stay", older),
    ...told("differ in the same version; those here stay", conflict),
    `${same} are the same. ${photos} photographs and ${events} events ${took ? "came" : "would come"} with them.`,
    ...(took ? (undo ? [`Undo it with: npm run restore -- --undo ${undo}`] : ["Nothing had to be written."]) : ["Nothing was written; add --take to do it."]),
  ];
}; // prettier-ignore

async function main(args: string[]): Promise<void> {
  const { dataFolder } = settingsFrom(process.env, null);
  const undo = args.indexOf("--undo");
  const file = args.find((arg, k) => !arg.startsWith("--") && (undo < 0 || k !== undo + 1));
  if (undo < 0 && (file === undefined || !existsSync(file)))
    throw new Error(`${file === undefined ? "Which archive?" : `There is no file ${file}.`} npm run restore -- copy.zip would be right; copies are in ${dataFolder}/copies.`); // prettier-ignore
  const store = await openStore(dataFolder);
  try {
    if (undo >= 0) {
      const { undone, kept } = await undoRestore(store, dataFolder, args[undo + 1] ?? "");
      console.log(`${undone} things are as they were.${kept.length > 0 ? ` Changed since, and kept: ${kept.join(", ")}.` : ""}`);
      return;
    }
    const archive = await readArchive(file ?? "");
    const take = args.includes("--take");
    console.log(lines(take ? await restore(store, dataFolder, archive) : await previewRestore(store, archive), take).join("\n"));
  } finally {
    await store.close();
  }
}

main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
});
