import type { ReactNode } from "react";
import { ErrorBoundary, type FallbackProps } from "react-error-boundary";
import { StyleSheet, View } from "react-native";
import { space } from "../theme/scale";
import { Button } from "./press";
import { Body, Heading, Small } from "./words";

const RELOADED = "uprise.reloaded-at";
const ONCE_IN_MS = 60_000;

/** A part of the application that the server no longer has: a new build took its place. */
export const isMissingPart = (error: unknown): boolean =>
  error instanceof Error &&
  (error.name === "AsyncRequireError" || /loading module|dynamically imported|chunk|requiring unknown module/i.test(error.message));

/** Loads the page anew, once a minute at the most; false when it did so just before. */
export function reloadOnce(now: number, reload: () => void): boolean {
  try {
    const before = Number(globalThis.sessionStorage?.getItem(RELOADED) ?? 0);
    if (now - before < ONCE_IN_MS) return false;
    globalThis.sessionStorage?.setItem(RELOADED, String(now));
  } catch {
    return false;
  }
  reload();
  return true;
}

const onError = (error: unknown): void => {
  // With a network a new build is a reload away; without one the page that stands must not be thrown away.
  if (isMissingPart(error) && globalThis.navigator?.onLine !== false) reloadOnce(Date.now(), () => globalThis.location.reload());
};

interface GuardProps {
  /** What is told when it breaks: “This room”, “This place”. */
  what: string;
  /** When one of these changes, it is tried again. */
  resetKeys?: unknown[];
  children: ReactNode;
}

/** A fence around a part of the screen: what breaks inside is told there, and the rest goes on. */
export function Guard({ what, resetKeys, children }: GuardProps) {
  return (
    <ErrorBoundary
      FallbackComponent={({ error, resetErrorBoundary }: FallbackProps) => (
        <Broken what={what} error={error} onRetry={resetErrorBoundary} />
      )}
      onError={onError}
      {...(resetKeys ? { resetKeys } : {})}
    >
      {children}
    </ErrorBoundary>
  );
}

function Broken({ what, error, onRetry }: { what: string; error: unknown; onRetry: () => void }) {
  const missing = isMissingPart(error);
  return (
    <View role="alert" style={styles.broken}>
      <Heading>{missing ? `${what} is not on this device yet.` : `${what} broke.`}</Heading>
      <Body>
        {missing
          ? "It comes from the server, which does not answer now. What you wrote is kept."
          : "That is a fault of Uprise. What you wrote is kept on this device, and everything else goes on working."}
      </Body>
      <Button onPress={onRetry}>Try again</Button>
      {missing ? null : <Small tone="faint">{error instanceof Error ? error.message : String(error)}</Small>}
    </View>
  );
}

const styles = StyleSheet.create({ broken: { padding: space.xl, gap: space.m, alignItems: "flex-start", maxWidth: 560 } });
