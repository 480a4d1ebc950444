import { spawn } from "node:child_process";
import { build, install, nodeVersionFits } from "./prepare.mjs";

if (!nodeVersionFits()) {
  console.error(`Node.js ${process.versions.node} is too old; 20.19 or newer would be right.`);
  process.exit(1);
}
install();
build();
const server = spawn(process.execPath, ["apps/server/dist/main.mjs"], {
  stdio: "inherit",
  env: { ...process.env, UPRISE_DEMO: "1" },
});
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
server.on("exit", (code) => process.exit(code ?? 0));
