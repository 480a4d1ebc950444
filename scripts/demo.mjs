import { spawn } from "node:child_process";
import { build, install, orSentence } from "./prepare.mjs";

await orSentence(async () => {
  await install();
  await build();
});
const server = spawn(process.execPath, ["apps/server/dist/main.mjs"], {
  stdio: "inherit",
  env: { ...process.env, UPRISE_DEMO: "1" },
});
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code) => process.exit(code ?? 0));
