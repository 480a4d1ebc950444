import type { Shelf, Wish } from "@uprise/core";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { NameSearch } from "../../ui/name-search";
import { NumberField } from "../../ui/number-field";
import { Button } from "../../ui/press";
import { useSearch } from "../wire/use-search";

type UseUpList = NonNullable<Wish["useUp"]>;
const FIRST_G = 200;
const MOST = 12;

/** What must be used up, with how much of it there is. */
export function UseUp({ shelf, list, onChange }: { shelf: Shelf; list: UseUpList; onChange: (list: UseUpList) => void }) {
  const [query, setQuery] = useState("");
  const found = useSearch(query, shelf, 6);
  return (
    <View style={styles.all}>
      {list.map(({ ingredientId, grams }) => {
        const name = shelf.get(ingredientId)?.name ?? ingredientId;
        return (
          <View key={ingredientId} style={styles.row}>
            <NumberField
              label={name}
              unit="g"
              least={1}
              most={20_000}
              value={grams}
              onChange={(next) =>
                next !== undefined &&
                onChange(list.map((one) => (one.ingredientId === ingredientId ? { ingredientId, grams: next } : one)))
              }
              style={styles.field}
            />
            <Button
              kind="quiet"
              label={`${name} need not be used up`}
              onPress={() => onChange(list.filter((one) => one.ingredientId !== ingredientId))}
            >
              Not this
            </Button>
          </View>
        );
      })}
      {list.length < MOST ? (
        <NameSearch
          label="What must be used up"
          query={query}
          onQuery={setQuery}
          found={found}
          onPick={({ id }) => {
            if (!list.some((one) => one.ingredientId === id)) onChange([...list, { ingredientId: id, grams: FIRST_G }]);
            setQuery("");
          }}
        />
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: space.s },
  row: { flexDirection: "row", alignItems: "flex-end", gap: space.m },
  field: { width: 200 },
});
