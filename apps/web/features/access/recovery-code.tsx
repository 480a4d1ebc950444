import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Body, Figure, Heading } from "../../ui/words";

/** The code by which a lost passcode is set anew; it is shown once. */
export function RecoveryCode({ code }: { code: string }) {
  const colours = useColours();
  return (
    <View style={styles.code} role="status">
      <Heading>Write this down</Heading>
      <Body>It sets a new passcode when this one is lost, and it is not shown again. Keep it away from the computer.</Body>
      <View style={[styles.box, { borderColor: colours.strongRule }]}>
        <Figure>{code}</Figure>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  code: { gap: space.m },
  box: { borderWidth: 1.5, padding: space.m },
});
