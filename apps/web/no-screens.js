/** Native screens and their stack are not drawn on the web; the router sets flags for them, and makes one, all the same. */
export const featureFlags = { experiment: {}, stable: {} };
export const createNativeStackNavigator = () => ({ Navigator: () => null });
