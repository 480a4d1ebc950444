import { databaseFile, openDatabase } from "./database";
import { type EventStore, eventStore } from "./events";
import { type FileStore, fileStore } from "./files";
import { columnsOf, type FormulaStore, formulaStore } from "./formulas";
import { type ListedStore, listedStore } from "./listed";
import { migrate } from "./migrations";
import { defineModels, type Models } from "./models";
import { type ThingStore, thingStore } from "./things";
import { type WholeStore, wholeStore } from "./whole";

export type { EventStore, StoredEvent } from "./events";
export type { FormulaStore } from "./formulas";
export type { Page, Query } from "./pages";
export type { WholeThing } from "./whole";
export type { StoredThing, ThingStore } from "./things";

export interface Store {
  formulas: FormulaStore;
  trials<B>(): ListedStore<B>;
  things<B>(name: keyof Models["things"]): ThingStore<B>;
  events: EventStore;
  files: FileStore;
  whole: WholeStore;
  isEmpty(): Promise<boolean>;
  close(): Promise<void>;
}

/** Opens the store of a data folder and brings it to the newest shape. Throws `Unusable` with a sentence where that is not possible. */
export async function openStore(dataFolder: string): Promise<Store> {
  await migrate(databaseFile(dataFolder));
  const database = openDatabase(dataFolder);
  const models = defineModels(database.sequelize);
  return {
    formulas: formulaStore(database, models),
    trials: () => listedStore(models),
    things: (name) => thingStore(database, models.things[name]),
    events: eventStore(database, models),
    files: fileStore(dataFolder, database, models),
    whole: wholeStore(database, models, columnsOf),
    isEmpty: async () => (await models.formulas.count()) === 0,
    close: () => database.close(),
  };
}
