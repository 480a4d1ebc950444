import { askPasscode } from "../apps/server/src/access/ask";
import { settingsFrom } from "../apps/server/src/settings";

/** Sets or changes the passcode of a kitchen from its own machine: `npm run passcode`, or `echo "four plain words here" | npm run passcode`. */
void askPasscode(settingsFrom(process.env, null).dataFolder);
