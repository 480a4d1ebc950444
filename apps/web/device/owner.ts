/**
 * Whose the things on this device are: a helper's are kept apart from a baker's, so that whoever comes in next never finds, or sends, what
 * another had under work. Where no passcode is asked, everything is the baker's.
 */
export type Owner = "baker" | "helper";

const NAME = "uprise.owner";

function kept(): Owner {
  try {
    return globalThis.localStorage?.getItem(NAME) === "helper" ? "helper" : "baker";
  } catch {
    return "baker";
  }
}

/** Read once: with another owner the page is opened anew. */
let owner: Owner | null = null;
export const ownerHere = (): Owner => (owner ??= kept());

/** Says who has come in; what this page holds open already stays of the one before until it is opened anew. False where this browser keeps nothing of anybody. */
export function comeIn(next: Owner): boolean {
  try {
    globalThis.localStorage?.setItem(NAME, next);
  } catch {
    return false;
  }
  return kept() === next;
}

/** The name of a store of the one who is here. */
export const ownStore = (name: string): string => (ownerHere() === "helper" ? `${name}.helper` : name);
