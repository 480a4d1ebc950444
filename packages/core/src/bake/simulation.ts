/** How the top stands when it has cooled. */
export const tops = ["domed", "flat", "peaked", "sunken", "over the rim"] as const;
/** How finely a bake is computed. */
export const fidelities = ["coarse", "fine"] as const;
export type Fidelity = (typeof fidelities)[number];
