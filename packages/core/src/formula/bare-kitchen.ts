import { builtInShelf } from "../pantry/catalogue";
import { noBook } from "./nested";
import type { Kitchen } from "./open";

/** A kitchen with nothing of its own. */
export const bareKitchen: Kitchen = { shelf: builtInShelf, book: noBook, ovens: new Map(), measures: "us" };
