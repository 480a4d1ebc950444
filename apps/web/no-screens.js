/** Native screens are not drawn on the web; the router sets flags for them all the same. */
export const featureFlags = { experiment: {}, stable: {} };
