import { existsSync } from "node:fs";
import { resolve } from "node:path";
import { buildApp } from "./app";
import { settingsFrom } from "./settings";

async function main(): Promise<void> {
  const webFolder = resolve("apps/web/dist");
  const settings = settingsFrom(process.env, existsSync(webFolder) ? webFolder : null);
  const app = await buildApp(settings, true);

  let stopping = false;
  const stop = async (): Promise<void> => {
    if (stopping) return;
    stopping = true;
    await app.close();
    process.exit(0);
  };
  process.on("SIGTERM", () => void stop());
  process.on("SIGINT", () => void stop());

  await app.listen({ port: settings.port, host: settings.host });
  const address = app.server.address();
  const port = typeof address === "object" && address ? address.port : settings.port;
  process.stdout.write(`Uprise stands at http://${settings.host}:${port}\n`);
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
