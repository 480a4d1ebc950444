import { useAsked } from "../../device/use-asked";
import type { SchemaName } from "../../workers/tasks";

/** What is wrong with something typed, by the contract; nothing while it is empty or not looked at yet. */
export function useFault(schema: SchemaName, text: string): string | undefined {
  const { data, current } = useAsked("check", text === "" ? null : [schema, text]);
  return current && data && !data.ok ? data.message : undefined;
}
