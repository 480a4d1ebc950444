import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Link } from "../../ui/link";
import { Button, Press } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { useOutbox } from "../wire/outbox";

/** What was saved here and has not arrived, in a line over the places; opened it names each thing, and what was refused with a way to mend it. */
export function Waiting() {
  const colours = useColours();
  const { waiting, letGo } = useOutbox();
  const [open, setOpen] = useState(false);
  if (waiting.length === 0) return null;
  const refused = waiting.filter((write) => write.refused !== undefined);
  const names = waiting.length === 1 ? `“${waiting[0]?.name ?? ""}”` : `${waiting.length} things`;
  const words =
    refused.length > 0
      ? `${refused.length === 1 ? `“${refused[0]?.name ?? ""}” was` : `${refused.length} things were`} not taken; nothing is lost.`
      : `${names} ${waiting.length === 1 ? "is" : "are"} saved here and ${waiting.length === 1 ? "goes" : "go"} out when the server answers.`;
  return (
    <View
      role="region"
      aria-label="Waiting for the server"
      style={[
        styles.bar,
        { borderTopColor: refused.length > 0 ? colours.caution : colours.strongRule, backgroundColor: colours.sunk },
      ]}
    >
      <Press onPress={() => setOpen(!open)} aria-expanded={open}>
        <Small strong={refused.length > 0}>{words}</Small>
      </Press>
      {open
        ? waiting.map(({ key, name, refused: why, to }) => (
            <View key={key} style={styles.one}>
              <View style={styles.grow}>
                <Body>{name}</Body>
                {why === undefined ? null : <Small tone="caution">{why}</Small>}
              </View>
              {to === undefined ? null : (
                <Link to={to} style={styles.link}>
                  <Body style={styles.underlined}>Open it</Body>
                </Link>
              )}
              {why === undefined ? null : (
                <Button kind="quiet" label={`Let it go: the save of ${name}`} onPress={() => letGo(key)}>
                  Let it go
                </Button>
              )}
            </View>
          ))
        : null}
    </View>
  );
}

const styles = StyleSheet.create({
  bar: { borderTopWidth: 1.5, paddingHorizontal: space.m },
  one: { flexDirection: "row", alignItems: "center", gap: space.s, flexWrap: "wrap" },
  grow: { flex: 1, minWidth: 160 },
  link: { paddingHorizontal: space.s },
  underlined: { textDecorationLine: "underline" },
});
