import type { Language } from "@uprise/core";

export const languageNames: Record<Language, string> = {
  en: "English",
  de: "German",
  fr: "French",
  es: "Spanish",
  it: "Italian",
};
