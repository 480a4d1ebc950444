/** A mark of a body that tests; a claim of the maker; nothing; a trace statement. */
export const packetGluten = ["certified", "claimed", "silent", "may-contain"] as const;
