import type { ReactNode } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Button, Press } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { TakenOffNotice } from "./taken-off";
import type { useTakeOff } from "./use-shelf-writes";

interface OwnShelfProps<T extends { id: string }> {
  items: readonly T[];
  /** What one of them is called: “oven”. */
  what: string;
  name: (item: T) => string;
  sentence: (item: T) => string;
  /** The item whose form is open; `new` for another one. */
  open: string | null;
  onOpen: (id: string | null) => void;
  form: (item: T | null) => ReactNode;
  off: ReturnType<typeof useTakeOff>;
  onRemove: (item: T) => void;
  /** Said where there is none yet. */
  empty?: string;
}

/** Things of the kitchen's own as a list: each opens to be changed in its place, is taken off with a way back, and another one is added at the end. */
export function OwnShelf<T extends { id: string }>({
  items,
  what,
  name,
  sentence,
  open,
  onOpen,
  form,
  off,
  onRemove,
  empty,
}: OwnShelfProps<T>) {
  const colours = useColours();
  return (
    <ScrollView contentContainerStyle={styles.list} keyboardShouldPersistTaps="handled">
      <TakenOffNotice {...off} />
      {items.length === 0 && empty ? <Body>{empty}</Body> : null}
      <View role="list">
        {items.map((item) => (
          <View role="listitem" key={item.id} style={{ borderBottomWidth: 1, borderBottomColor: colours.rule }}>
            <Press onPress={() => onOpen(open === item.id ? null : item.id)} aria-expanded={open === item.id} style={styles.item}>
              <Body strong>{name(item)}</Body>
              <Small tone="faint">{`${sentence(item)}.`}</Small>
            </Press>
            {open === item.id ? (
              <>
                {form(item)}
                <Button kind="quiet" label={`Remove ${name(item)}`} onPress={() => onRemove(item)}>
                  {`Remove this ${what}`}
                </Button>
              </>
            ) : null}
          </View>
        ))}
      </View>
      {open === "new" ? form(null) : <Button onPress={() => onOpen("new")}>{`Another ${what}`}</Button>}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  list: { padding: space.m, gap: space.m },
  item: { paddingVertical: space.xs },
});
