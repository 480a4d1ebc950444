/** What a baker sees, feels or measures. */
export const signs = ["core", "golden", "dry", "skewer", "springs", "edge"] as const;
