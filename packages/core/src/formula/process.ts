export const methods = ["muffin", "creaming", "cut-in", "one-bowl", "blender", "whisked"] as const;
export const coolings = ["upright", "in-tin", "upside-down"] as const;
export const methodName: Record<(typeof methods)[number], string> = {
  muffin: "Muffin method",
  creaming: "Creaming",
  "cut-in": "Cutting in",
  "one-bowl": "One bowl",
  blender: "Blender",
  whisked: "Whisked",
};
