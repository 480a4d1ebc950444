import { ScrollView, StyleSheet } from "react-native";
import { space } from "../../theme/scale";
import { type Scheme, schemes, useTheme } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { Heading, Small } from "../../ui/words";

const schemeName: Record<Scheme, string> = { system: "As this device", light: "Light", dark: "Dark, for the early shift" };

/** How Uprise looks on this device. */
export function SettingsShelf() {
  const { scheme, setScheme } = useTheme();
  return (
    <ScrollView contentContainerStyle={styles.settings}>
      <Heading>Light</Heading>
      <Choice
        label="Light"
        list
        options={schemes.map((value) => ({ value, label: schemeName[value] }))}
        value={scheme}
        onChange={setScheme}
      />
      <Small tone="faint">Kept on this device alone.</Small>
    </ScrollView>
  );
}

const styles = StyleSheet.create({ settings: { padding: space.m, gap: space.s, maxWidth: 560 } });
