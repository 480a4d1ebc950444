import { useMutation } from "@tanstack/react-query";
import type { BakeRecord, BakeState, Shelf, Slip, SlipAnswer } from "@uprise/core";
import { gramsText, ingredientOf } from "@uprise/core/page";
import { useEffect, useState } from "react";
import { StyleSheet, View } from "react-native";
import { space, touch } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { NameSearch } from "../../ui/name-search";
import { Button } from "../../ui/press";
import { Busy } from "../../ui/state";
import { Body, Heading, Small } from "../../ui/words";
import { wire } from "../wire/client";
import { requestOf } from "./request";
import type { Happen } from "./use-bake";

export function slipWords(slip: Slip, shelf: Shelf): string {
  const name = (id: string): string => (shelf.get(id) ? ingredientOf(shelf, id).name.toLowerCase() : id);
  if (slip.what === "amount") return `${gramsText(slip.grams)} of ${name(slip.ingredientId)} went in`;
  if (slip.what === "forgotten") return `${name(slip.ingredientId)} was forgotten`;
  return `${name(slip.with)} went in for ${name(slip.ingredientId)}`;
}

interface SlipPanelProps {
  record: BakeRecord;
  state: BakeState;
  shelf: Shelf;
  slip: Slip;
  happen: Happen;
  onEnd: () => void;
}

/** What a slip does, and what can still be done about it: computed at once. */
export function SlipPanel({ record, state, shelf, slip, happen, onEnd }: SlipPanelProps) {
  const colours = useColours();
  const { mutate, data, error, isPending } = useMutation({
    mutationFn: () => wire.slip({ ...requestOf(record.part?.whole ?? record.formula, state.lines), slip }),
  });
  // Asked once, when the panel is opened.
  useEffect(() => mutate(), [mutate]);
  const words = slipWords(slip, shelf);
  const take = (remedy: SlipAnswer["remedies"][number]): void => {
    const inBatter = remedy.lines.flatMap(({ ingredientId, grams, component }) => (ingredientId !== undefined && grams !== undefined && component === undefined ? [{ ingredientId, grams }] : []));
    happen("remedy", { remedyId: remedy.id, words: remedy.title, lines: merge([...inBatter, ...record.formula.lines.flatMap(({ ingredientId, grams, component, off }) => (component !== undefined && off !== true && ingredientId !== undefined && grams ? [{ ingredientId, grams: grams.mid }] : []))]) });
    onEnd();
  }; // prettier-ignore
  return (
    <View style={[styles.panel, { borderColor: colours.caution }]} role="group" aria-label="A slip">
      <Heading>{words.replace(/^./, (c) => c.toUpperCase())}</Heading>
      <Busy on={isPending} what="Computing what that does" />
      {error ? (
        <>
          <Body tone="stop">{error.message}</Body>
          <Button onPress={() => mutate()}>Try again</Button>
          <Button kind="quiet" onPress={onEnd}>
            Go on without
          </Button>
        </>
      ) : null}
      {data ? (
        <>
          {data.effects.length === 0 ? <Body>It changes little.</Body> : null}
          {data.effects.map((effect) => (
            <Body key={effect.what}>{effect.words}</Body>
          ))}
          {data.remedies.map((remedy, k) => (
            <View key={remedy.id} style={[styles.remedy, { borderTopColor: colours.rule }]}>
              <Body strong>{remedy.title}</Body>
              <Small>{remedy.why}</Small>
              <Small tone="faint">{changesText(remedy, shelf)}</Small>
              <Button
                kind={k === 0 ? "main" : "plain"}
                style={styles.big}
                onPress={() => take(remedy)}
                label={`Do that: ${remedy.title}`}
              >
                {remedy.id === "leave" ? "Leave it" : "Do that"}
              </Button>
            </View>
          ))}
        </>
      ) : null}
    </View>
  );
}

/** One line an ingredient. */
function merge(lines: readonly { ingredientId: string; grams: number }[]): { ingredientId: string; grams: number }[] {
  const all = new Map<string, number>();
  for (const { ingredientId, grams } of lines) all.set(ingredientId, (all.get(ingredientId) ?? 0) + grams);
  return [...all].map(([ingredientId, grams]) => ({ ingredientId, grams }));
}

const SHOWN = 4;
function changesText({ changes }: SlipAnswer["remedies"][number], shelf: Shelf): string {
  const told = changes.slice(0, SHOWN).map(({ ingredientId, fromG, toG }) => {
    const name = shelf.get(ingredientId) ? ingredientOf(shelf, ingredientId).name.toLowerCase() : ingredientId;
    return `${toG >= fromG ? "+" : "−"} ${gramsText(Math.abs(toG - fromG))} ${name}`;
  });
  const more = changes.length - SHOWN;
  return told.join(", ") + (more > 0 ? `, and ${more} more in the same measure` : "");
}

/** Something forgotten or swapped: which, and what with. */
export function TellSlip({ record, shelf, onTold }: { record: BakeRecord; shelf: Shelf; onTold: (slip: Slip) => void }) {
  const [what, setWhat] = useState<"forgotten" | "swapped" | "amount">("forgotten");
  const [which, setWhich] = useState<string | null>(null);
  const [query, setQuery] = useState("");
  const lines = record.formula.lines.filter(
    ({ component, off, ingredientId }) => component === undefined && off !== true && ingredientId !== undefined,
  );
  const found = [...shelf.all()].filter(({ name }) => name.toLowerCase().includes(query.trim().toLowerCase())).slice(0, 6);
  return (
    <View style={styles.weigh}>
      <Choice titled label="What went wrong" options={[{ value: "forgotten", label: "Forgotten" }, { value: "swapped", label: "Taken for another" }]} value={what} onChange={setWhat} />
      <View style={styles.tools} role="group" aria-label="Which ingredient">
        {lines.map(({ id, ingredientId = "" }) => (
          <Button key={id} kind={which === ingredientId ? "main" : "plain"} onPress={() => { setWhich(ingredientId); if (what === "forgotten") onTold({ what: "forgotten", ingredientId, mixed: true }); }}>
            {ingredientOf(shelf, ingredientId).name}
          </Button>
        ))}
      </View>
      {what === "swapped" && which !== null ? (
        <NameSearch label="What went in" query={query} onQuery={setQuery} found={found} onPick={({ id }) => onTold({ what: "swapped", ingredientId: which, with: id, mixed: true })} />
      ) : null}
    </View>
  ); // prettier-ignore
}

const styles = StyleSheet.create({
  panel: { borderWidth: 1.5, padding: space.m, gap: space.s },
  remedy: { borderTopWidth: 1, paddingTop: space.s, gap: space.xs, alignItems: "flex-start" },
  big: { minHeight: touch.counter },
  weigh: { gap: space.s },
  tools: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
});
