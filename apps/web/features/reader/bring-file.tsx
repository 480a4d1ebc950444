import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { FoundRecipe, ImportAnswer, ImportRequest } from "@uprise/contract";
import type { ColumnRole, Columns, Measures } from "@uprise/core";
import { gramsText, isWeighed } from "@uprise/core/page";
import { type Href, useRouter } from "expo-router";
import { useRef, useState } from "react";
import { StyleSheet, View } from "react-native";
import { readDevice, writeDevice } from "../../device/local";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Check } from "../../ui/check";
import { Choice } from "../../ui/choice";
import { FileButton } from "../../ui/file-button";
import { Button } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";
import type { Pasted } from "./pasted";

const ACCEPT = ".txt,.md,.markdown,.csv,.tsv,.json,.jsonld,.html,.htm,text/*,application/json,application/ld+json";
const MOST_BYTES = 8_000_000;

interface BringFileProps {
  measures: Measures;
  /** Into the paste, to be looked at line by line. */
  onRead: (pasted: Pasted) => void;
}

/** Recipes out of a file: shown as they are read, then looked at line by line or kept as they are. */
export function BringFile({ measures, onRead }: BringFileProps) {
  const router = useRouter();
  const queries = useQueryClient();
  const [asked, setAsked] = useState<ImportRequest | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const ids = useRef<string[]>([]);
  const look = useMutation({
    mutationFn: (request: ImportRequest) => wire.importText(request),
    onSuccess: (answer) => {
      setLeft(new Set());
      ids.current = answer.recipes.map(() => newId());
    },
  });
  const take = useMutation({
    mutationFn: (only: number[]) => {
      if (!asked) throw new Error("Nothing was opened.");
      return wire.importText({ ...asked, only, ids: only.map((k) => ids.current[k] ?? newId()) }, true);
    },
    onSuccess: async ({ taken }) => {
      await queries.invalidateQueries({ queryKey: keys.formulas.all });
      const [first] = taken;
      router.navigate((taken.length === 1 && first ? `/bench/${first.id}` : "/formulas") as Href);
    },
  });
  const ask = (request: ImportRequest): void => {
    setAsked(request);
    take.reset();
    look.mutate(request);
  };
  const open = async (file: File): Promise<void> => {
    setFault(null);
    look.reset();
    if (file.size > MOST_BYTES) return setFault(`“${file.name}” has ${(file.size / 1e6).toFixed(1)} MB; up to 8 MB would be right.`);
    const text = await file.text();
    const html = /\.html?$/i.test(file.name) || file.type === "text/html";
    ask({ ...(html ? { html: text } : { text }), name: file.name, measures, ...keptColumns(text) });
  };
  const { data, error, isPending } = look;
  const chosen = (data?.recipes ?? []).flatMap((_, k) => (left.has(k) ? [] : [k]));
  return (
    <View style={styles.all}>
      <FileButton accept={ACCEPT} disabled={isPending} onFile={(file) => void open(file)}>
        {isPending ? "Reading it" : "Open a file"}
      </FileButton>
      <Small tone="faint">Text, a table, a web page that you saved, or a recipe file of another program; one recipe or several.</Small>
      {fault ?? error ? <Body tone="stop">{fault ?? error?.message}</Body> : null}
      {data ? (
        <View style={styles.found} role="region" aria-label="What was found">
          {data.notes.map((note) => (
            <Body key={note} tone="caution">
              {note}
            </Body>
          ))}
          {data.table && asked ? <ColumnsOf table={data.table} onColumns={(columns) => ask({ ...asked, columns })} /> : null}
          {data.recipes.length === 0 && !data.table ? <Body>No recipe was found in it.</Body> : null}
          {data.recipes.map((recipe, k) => (
            <FoundOne
              key={`${k}-${recipe.title}`}
              recipe={recipe}
              many={data.recipes.length > 1}
              on={!left.has(k)}
              onOn={(on) => setLeft((before) => new Set(on ? [...before].filter((one) => one !== k) : [...before, k]))}
              onRead={() => onRead({ text: recipe.text, measures, mending: recipe.mending, ...(recipe.kind ? { kind: recipe.kind } : {}) })}
            />
          ))}
          {data.recipes.length > 0 ? (
            <Button kind="main" disabled={chosen.length === 0 || take.isPending} onPress={() => take.mutate(chosen)}>
              {data.recipes.length === 1 ? "Keep it as it is read" : `Keep ${chosen.length} as they are read`}
            </Button>
          ) : null}
          {take.error ? <Body tone="stop">{take.error.message}</Body> : null}
        </View>
      ) : null}
    </View>
  );
} // prettier-ignore

function FoundOne({ recipe, many, on, onOn, onRead }: { recipe: FoundRecipe; many: boolean; on: boolean; onOn: (on: boolean) => void; onRead: () => void }) {
  const colours = useColours();
  const { reading, formula, title, notes } = recipe;
  const weighed = formula.lines.filter(isWeighed);
  const open = formula.lines.length - weighed.length;
  const grams = weighed.reduce((g, line) => g + (typeof line.grams === "number" ? line.grams : line.grams.mid), 0);
  const asked = reading.questions.length;
  return (
    <View style={[styles.one, { borderBottomColor: colours.rule }]}>
      <Heading>{title}</Heading>
      <Body>{`${weighed.length} lines weighed, ${gramsText(grams)}${asked > 0 ? `; ${asked} ${asked === 1 ? "question" : "questions"}` : ""}${open > 0 ? `; ${open} open` : ""}.`}</Body>
      {reading.questions.slice(0, 3).map((question) => (
        <Small key={question.id} tone="caution">
          {question.message}
        </Small>
      ))}
      {notes.map((note) => (
        <Small key={note} tone="caution">
          {note}
        </Small>
      ))}
      <View style={styles.row}>
        <Button label={`Look at it line by line: ${title}`} onPress={onRead}>
          Look at it line by line
        </Button>
        {many ? <Check label={`Keep ${title}`} on={on} onChange={onOn} /> : null}
      </View>
    </View>
  );
} // prettier-ignore

const roleWords: [ColumnRole, string][] = [
  ["ingredient", "ingredient"], ["grams", "grams"], ["amount", "amount"], ["unit", "unit"], ["note", "note"], ["component", "part"], ["recipe", "recipe"], ["id", "id"],
]; // prettier-ignore
const NONE = "none";
const keptName = (head: readonly string[]): string => `columns.${head.join("|").slice(0, 200)}`;

/** What the columns of a table with the same head were said to be before. */
function keptColumns(text: string): { columns?: Columns } {
  const head = text.replace(/^\uFEFF/, "").split(/\r?\n/)[0]?.split(/[,;\t]/).map((cell) => cell.replace(/^"|"$/g, "").trim()) ?? []; // prettier-ignore
  const kept = readDevice(keptName(head));
  if (kept === null) return {};
  try {
    return { columns: JSON.parse(kept) as Columns };
  } catch {
    return {};
  }
}

/** A table's head with what each column holds, to be said otherwise; it is remembered for tables of the same head. */
function ColumnsOf({ table, onColumns }: { table: NonNullable<ImportAnswer["table"]>; onColumns: (columns: Columns) => void }) {
  const { head, sample, columns, fault } = table;
  const [open, setOpen] = useState(fault !== undefined);
  const roleOf = (k: number): string => roleWords.find(([role]) => columns[role] === k)?.[0] ?? NONE;
  const set = (k: number, role: string): void => {
    const others = Object.entries(columns).filter(([name, at]) => at !== k && name !== role);
    const next = Object.fromEntries(role === NONE ? others : [...others, [role, k]]) as Columns;
    writeDevice(keptName(head), JSON.stringify(next));
    onColumns(next);
  };
  return (
    <View style={styles.table}>
      {fault ? <Body tone="caution">{fault}</Body> : null}
      <Button kind="quiet" onPress={() => setOpen(!open)} style={styles.left}>
        {open ? "Columns, as they are taken" : "Are the columns taken rightly?"}
      </Button>
      {open
        ? head.map((name, k) => (
            <View key={`${k}-${name}`}>
              <Body strong>{name === "" ? `Column ${k + 1}` : name}</Body>
              <Small tone="faint">{sample.map((row) => row[k] ?? "").filter((cell) => cell !== "").slice(0, 3).join(" · ")}</Small>
              <Choice label={`What ${name === "" ? `column ${k + 1}` : name} holds`} options={[...roleWords.map(([value, label]) => ({ value: value as string, label })), { value: NONE, label: "nothing of use" }]} value={roleOf(k)} onChange={(role) => set(k, role)} />
            </View>
          ))
        : null}
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  all: { gap: space.s, alignItems: "flex-start" },
  found: { gap: space.m, width: "100%" },
  one: { borderBottomWidth: 1, paddingVertical: space.s, gap: space.xs },
  row: { flexDirection: "row", flexWrap: "wrap", gap: space.m, alignItems: "center" },
  table: { gap: space.m },
  left: { alignSelf: "flex-start", paddingHorizontal: 0 },
});
