import type { ReactNode } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours, useWide } from "../../theme/theme";
import { Beside } from "../../ui/beside";
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

/** Things of the kitchen's own as a list: each opens to be changed in its place or beside the list, is taken off with a way back, and another one is added at the end. */
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
  const wide = useWide();
  const at = items.find(({ id }) => id === open) ?? null;
  const opened = (item: T) => (
    <>
      {form(item)}
      <Button kind="quiet" label={`Remove ${name(item)}`} onPress={() => onRemove(item)}>
        {`Remove this ${what}`}
      </Button>
    </>
  );
  const list = (
    <ScrollView contentContainerStyle={styles.list} keyboardShouldPersistTaps="handled">
      <TakenOffNotice {...off} />
      {items.length === 0 && empty ? <Body>{empty}</Body> : null}
      <View role="list">
        {items.map((item) => (
          <View
            role="listitem"
            key={item.id}
            style={{
              borderBottomWidth: 1,
              borderBottomColor: colours.rule,
              backgroundColor: wide && open === item.id ? colours.sunk : "transparent",
            }}
          >
            <Press onPress={() => onOpen(open === item.id ? null : item.id)} aria-expanded={open === item.id} style={styles.item}>
              <Body strong>{name(item)}</Body>
              <Small tone="faint">{`${sentence(item)}.`}</Small>
            </Press>
            {!wide && open === item.id ? opened(item) : null}
          </View>
        ))}
      </View>
      {!wide && open === "new" ? form(null) : <Button onPress={() => onOpen("new")}>{`Another ${what}`}</Button>}
    </ScrollView>
  );
  if (!wide) return list;
  const detail = open === "new" ? form(null) : at ? opened(at) : <Body tone="faint">Choose one to see and change it.</Body>;
  return (
    <Beside
      list={list}
      detail={
        <ScrollView key={open} contentContainerStyle={styles.list} keyboardShouldPersistTaps="handled">
          {detail}
        </ScrollView>
      }
    />
  );
}

const styles = StyleSheet.create({
  list: { padding: space.m, gap: space.m },
  item: { paddingVertical: space.xs },
});
