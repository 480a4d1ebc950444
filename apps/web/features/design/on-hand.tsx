import type { Family, Ingredient, Shelf } from "@uprise/core";
import { USUAL_SHELF } from "@uprise/core/page-bench";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Check } from "../../ui/check";
import { NameSearch } from "../../ui/name-search";
import { Small } from "../../ui/words";
import { useSearch } from "../wire/use-search";

const groups: { title: string; families: readonly Family[] }[] = [
  { title: "Flours and starches", families: ["flour", "pulse-flour", "nut-flour", "starch", "blend"] },
  { title: "Wet", families: ["dairy", "cultured", "plant-milk", "water", "juice", "fizzy", "egg"] },
  { title: "Fat and sweet", families: ["fat", "sugar", "syrup"] },
  { title: "Binds, lifts and sours", families: ["binder", "egg-substitute", "leavener", "acid", "vinegar"] },
];
const rest = "And besides";

const groupOf = ({ family }: Ingredient): string => groups.find(({ families }) => families.includes(family))?.title ?? rest;

interface OnHandProps {
  shelf: Shelf;
  ticked: readonly string[];
  tick: (id: string, on: boolean) => void;
}

/** What is on hand: the usual shelf and what was added to it, ticked on and off. */
export function OnHand({ shelf, ticked, tick }: OnHandProps) {
  const [query, setQuery] = useState("");
  const found = useSearch(query, shelf, 6);
  const shown = [...new Set([...USUAL_SHELF, ...ticked])].flatMap((id) => shelf.get(id) ?? []);
  return (
    <View style={styles.all}>
      {[...groups.map(({ title }) => title), rest].map((title) => {
        const these = shown.filter((one) => groupOf(one) === title);
        return these.length === 0 ? null : (
          <View key={title} role="group" aria-label={title}>
            <Small tone="faint">{title}</Small>
            <View style={styles.row}>
              {these.map((one) => (
                <Check key={one.id} label={one.name} on={ticked.includes(one.id)} onChange={(on) => tick(one.id, on)} />
              ))}
            </View>
          </View>
        );
      })}
      <NameSearch
        label="Something else that is on hand"
        query={query}
        onQuery={setQuery}
        found={found}
        onPick={({ id }) => {
          tick(id, true);
          setQuery("");
        }}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: space.m },
  row: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
});
