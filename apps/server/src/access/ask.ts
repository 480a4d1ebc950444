import { createInterface } from "node:readline/promises";
import { passcodeSchema } from "@uprise/contract";
import { openAccess } from "./access";

/** Asks for a passcode until one will do, or takes the line that is piped in; sets it and prints the recovery code, once. */
export async function askPasscode(dataFolder: string): Promise<void> {
  const lines = createInterface({ input: process.stdin, output: process.stdout, terminal: false });
  try {
    process.stdout.write("A passcode for this kitchen, ten signs or more (it is shown as you type): ");
    for await (const line of lines) {
      const parsed = passcodeSchema.safeParse(line.trim());
      if (parsed.success) {
        const code = await openAccess(dataFolder).set(parsed.data);
        process.stdout.write(
          `\nIt is set, and every device is let go.\nRecovery code, shown this once; write it down and keep it away from the computer:\n\n  ${code}\n\n`,
        );
        return;
      }
      process.stdout.write(`${parsed.error.issues[0]?.message ?? "Another one would be right."}\nA passcode: `);
    }
    process.stdout.write("\nNo passcode was set.\n");
    process.exitCode = 1;
  } finally {
    lines.close();
  }
}
