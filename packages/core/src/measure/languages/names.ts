export const languages = ["en", "de", "fr", "es", "it"] as const;
export type Language = (typeof languages)[number];
