import { StyleSheet, View } from "react-native";
import { space } from "../theme/scale";
import { useColours } from "../theme/theme";
import { Field } from "./field";
import { Press } from "./press";
import { Body, Small } from "./words";

interface SearchProps<T extends { id: string; name: string; aliases: string[] }> {
  label: string;
  query: string;
  onQuery: (query: string) => void;
  found: readonly T[];
  onPick: (item: T) => void;
  nothing?: string;
}

/** A search box with what it finds under it, as a list of names to press. */
export function NameSearch<T extends { id: string; name: string; aliases: string[] }>({
  label,
  query,
  onQuery,
  found,
  onPick,
  nothing = "Nothing by that name.",
}: SearchProps<T>) {
  const colours = useColours();
  return (
    <View style={styles.search}>
      <Field label={label} value={query} onChange={onQuery} placeholder="type a name" />
      {query.trim() === "" ? null : found.length === 0 ? (
        <Small tone="faint">{nothing}</Small>
      ) : (
        <View role="list" style={styles.list}>
          {found.map((item) => (
            <View role="listitem" key={item.id}>
              <Press onPress={() => onPick(item)} style={[styles.item, { borderBottomColor: colours.rule }]}>
                <Body lines={1}>{item.name}</Body>
                {item.aliases.length > 0 ? (
                  <Small tone="faint" lines={1}>
                    {item.aliases.slice(0, 3).join(", ")}
                  </Small>
                ) : null}
              </Press>
            </View>
          ))}
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  search: { gap: space.xs },
  list: { maxHeight: 320 },
  item: { borderBottomWidth: 1, paddingHorizontal: space.xs, paddingVertical: space.xs },
});
