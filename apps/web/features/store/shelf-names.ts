export const shelves = ["ingredients", "packets", "pans", "ovens", "devices", "copies", "access", "settings"] as const;
export type ShelfName = (typeof shelves)[number];
export const shelfTitle: Record<ShelfName, string> = {
  ingredients: "Ingredients",
  packets: "Packets",
  pans: "Pans",
  ovens: "Ovens",
  devices: "Devices",
  copies: "Copies",
  access: "Who comes in",
  settings: "Settings",
};

/** The shelf that an address names, or undefined for one that there is not. */
export const shelfFrom = (name: string): ShelfName | undefined => shelves.find((shelf) => shelf === name);
