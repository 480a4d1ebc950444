import { spawn } from "node:child_process";
import { buildFonts, buildWorker, install, orSentence } from "./prepare.mjs";

/** The server with reload at 4173, the app with reload at 8081; the app's calls go to the server through Metro's proxy. */
await orSentence(install);
buildWorker(true);
await buildFonts();
const env = { ...process.env, UPRISE_DEMO: "1", EXPO_NO_TYPESCRIPT_SETUP: "1", EXPO_NO_TELEMETRY: "1", EXPO_OFFLINE: "1" };
const children = [
  spawn("node_modules/.bin/tsx", ["watch", "--clear-screen=false", "apps/server/src/main.ts"], { stdio: "inherit", env }),
  spawn("../../node_modules/.bin/expo", ["start", "--web", "--port", "8081"], { cwd: "apps/web", stdio: "inherit", env }),
];
const stop = () => children.forEach((child) => child.kill("SIGTERM"));
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, stop);
for (const child of children) child.on("exit", stop);
