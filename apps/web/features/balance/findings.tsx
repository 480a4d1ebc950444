import type { Finding, Opened, Shelf } from "@uprise/core";
import { isFault } from "@uprise/core/page";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Notice } from "../../ui/notice";
import { Press } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { Busy } from "../../ui/state";
import { useWaysOut } from "../bake/use-baked";

/** What stands on a formula with something open is said so. */
const titleOf = ({ message, provisional }: Finding): string => (provisional ? `So far: ${message}` : message);

/** One finding whole: what, what to do, why. */
export function FindingNotice({ finding }: { finding: Finding }) {
  return (
    <Notice gravity={finding.severity} title={titleOf(finding)}>
      {finding.fix ? <Body>{finding.fix}</Body> : null}
      <Small tone="faint">{finding.why}</Small>
    </Notice>
  );
}

interface FindingsProps {
  findings: readonly Finding[];
  /** What the formula is opened by: what would mend each finding is looked for once they are opened. */
  ways?: { open: () => Opened; shelf: Shelf };
  onBalance: () => void;
}

const nothing = (): Opened => ({ lines: [] });
const bare: Shelf = { get: () => undefined, all: () => [] };

/** The gravest finding in one line, all of them on a tap. Nothing to say is said too. */
export function Findings({ findings: found, ways, onBalance }: FindingsProps) {
  const colours = useColours();
  const [open, setOpen] = useState(false);
  const { findings: mended, pending } = useWaysOut(ways?.open ?? nothing, ways?.shelf ?? bare, open && ways !== undefined);
  const findings = mended ?? found;
  const first = findings[0];
  if (!first) {
    return (
      <View style={[styles.line, { borderBottomColor: colours.rule }]} role="status">
        <Body tone="good" strong>
          Nothing to mend.
        </Body>
      </View>
    );
  }
  const rest = findings.length - 1;
  return (
    <View style={[styles.all, { borderBottomColor: colours.rule }]} role="status" aria-label="Findings">
      {open ? (
        <>
          {findings.map((finding, index) => (
            <FindingNotice key={`${finding.id}-${index}`} finding={finding} />
          ))}
          <Busy on={pending} what="Looking for ways out, and baking each" />
        </>
      ) : (
        <Notice gravity={first.severity} title={titleOf(first)} />
      )}
      <View style={styles.ways}>
        <Press onPress={() => setOpen(!open)} aria-expanded={open} style={styles.more}>
          <Small style={styles.underlined}>{open ? "Close" : rest === 0 ? "What to do" : `What to do, and ${rest} more`}</Small>
        </Press>
        {findings.some(({ id }) => isFault(id)) ? (
          <Press onPress={onBalance} style={styles.more}>
            <Small strong style={styles.underlined}>
              Balance it for me
            </Small>
          </Press>
        ) : null}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  line: { paddingHorizontal: space.m, paddingVertical: space.s, borderBottomWidth: 1 },
  all: { paddingHorizontal: space.m, borderBottomWidth: 1 },
  ways: { flexDirection: "row", gap: space.m },
  more: { alignSelf: "flex-start", paddingLeft: space.l },
  underlined: { textDecorationLine: "underline" },
});
