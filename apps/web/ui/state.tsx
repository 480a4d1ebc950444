import type { ReactNode } from "react";
import { ActivityIndicator, StyleSheet, View } from "react-native";
import { space } from "../theme/scale";
import { useColours } from "../theme/theme";
import { Link } from "./link";
import { Button } from "./press";
import { Body, Heading } from "./words";

/** The designed states of a screen without content. */
export function Loading({ what }: { what: string }) {
  const colours = useColours();
  return (
    <View style={styles.state} role="status" aria-live="polite">
      <ActivityIndicator color={colours.ink} aria-label={what} />
      <Body tone="faint">{what}</Body>
    </View>
  );
}

export function Failed({ title, detail, onRetry }: { title: string; detail: string; onRetry?: () => void }) {
  return (
    <View style={styles.state} role="alert">
      <Heading>{title}</Heading>
      <Body>{detail}</Body>
      {onRetry ? <Button onPress={onRetry}>Try again</Button> : null}
    </View>
  );
}

export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <View style={styles.state}>
      <Heading>{title}</Heading>
      {children}
    </View>
  );
}

/** An address that leads to nothing: what that means, and a way on. */
export function NotFound({ title, children, to, way }: { title: string; children: string; to: string; way: string }) {
  return (
    <View style={styles.state} role="status">
      <Heading>{title}</Heading>
      <Body>{children}</Body>
      <Link to={to}>
        <Body strong style={styles.way}>
          {way}
        </Body>
      </Link>
    </View>
  );
}

/** Work under way that takes longer than a moment: a line of fixed height, so that nothing jumps when it ends. */
export function Busy({ on, what }: { on: boolean; what: string }) {
  const colours = useColours();
  return (
    <View style={styles.busy} role="status" aria-live="polite">
      {on ? (
        <>
          <ActivityIndicator size="small" color={colours.ink} aria-label={what} />
          <Body tone="faint">{what}</Body>
        </>
      ) : null}
    </View>
  );
}

/** Long work with a bar of what is done and a way to stop it; a line of fixed height, so that nothing jumps when it ends. */
export function Progress({ on, what, done, onStop }: { on: boolean; what: string; done: number; onStop: () => void }) {
  const colours = useColours();
  const percent = Math.round(100 * Math.min(1, Math.max(0, done)));
  return (
    <View style={styles.progress}>
      {on ? (
        <>
          <View style={styles.progressWords} role="progressbar" aria-label={what} aria-valuemin={0} aria-valuemax={100} aria-valuenow={percent}>
            <Body tone="faint">{`${what}, ${percent} %`}</Body>
            <View style={[styles.track, { backgroundColor: colours.sunk }]}>
              <View style={[styles.bar, { backgroundColor: colours.ink, width: `${percent}%` }]} />
            </View>
          </View>
          <Button kind="quiet" onPress={onStop}>
            Stop
          </Button>
        </>
      ) : null}
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  progress: { minHeight: 48, flexDirection: "row", alignItems: "center", gap: space.m },
  progressWords: { flex: 1, gap: space.xs, maxWidth: 360 },
  track: { height: 6 },
  bar: { height: 6 },
  busy: { minHeight: 24, flexDirection: "row", alignItems: "center", gap: space.s },
  way: { textDecorationLine: "underline" },
  state: { padding: space.xl, gap: space.m, alignItems: "flex-start", maxWidth: 560 },
});
