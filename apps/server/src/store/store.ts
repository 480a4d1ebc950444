import { databaseFile, openDatabase } from "./database";
import { clearHalves, holdFolder, openTally } from "./folder";
import { type EventStore, eventStore } from "./events";
import { type FileStore, fileStore } from "./files";
import { columnsOf, type FormulaStore, formulaStore } from "./formulas";
import { type ListedStore, listedStore } from "./listed";
import { type GlanceStore, glanceStore } from "./glances";
import { migrate } from "./migrations";
import { defineModels, type Models } from "./models";
import { type ThingStore, thingStore } from "./things";
import { type WholeStore, wholeStore } from "./whole";

export type { EventStore, StoredEvent } from "./events";
export type { FormulaStore } from "./formulas";
export type { Page, Query } from "./pages";
export type { Hand, WholeKey, WholeThing, WholeVersion } from "./whole";
export type { StoredThing, ThingStore } from "./things";

export interface Store {
  formulas: FormulaStore;
  trials<B>(): ListedStore<B>;
  things<B>(name: keyof Models["things"]): ThingStore<B>;
  events: EventStore;
  files: FileStore;
  glances: GlanceStore;
  whole: WholeStore;
  isEmpty(): Promise<boolean>;
  close(): Promise<void>;
}

/**
 * Opens the store of a data folder and brings it to the newest shape. Throws `Unusable` with a sentence where that is not possible: another
 * Uprise has it, the database is damaged, held or may only be read, or there is less in it than was saved. `beginAnew` begins an empty kitchen
 * beside copies of a full one, which only a person may say.
 */
export async function openStore(dataFolder: string, beginAnew = false): Promise<Store> {
  const file = databaseFile(dataFolder);
  const letFolderGo = await holdFolder(dataFolder);
  try {
    const tally = await openTally(dataFolder, file, migrate, beginAnew);
    await clearHalves(dataFolder);
    const database = openDatabase(dataFolder, tally.told);
    // One connection stays open: with the last one the log would be taken up after every write.
    await database.sequelize.query("SELECT 1");
    const models = defineModels(database.sequelize);
    return {
      formulas: formulaStore(database, models),
      trials: () => listedStore(models),
      things: (name) => thingStore(database, name, models.things[name]),
      events: eventStore(database, models),
      files: fileStore(dataFolder, database, models),
      glances: glanceStore(database),
      whole: wholeStore(database, models, columnsOf),
      isEmpty: async () => (await models.formulas.count()) === 0,
      async close() {
        await database.close();
        await tally.close();
        await letFolderGo();
      },
    };
  } catch (error) {
    await letFolderGo();
    throw error;
  }
}
