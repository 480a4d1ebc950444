import { usePathname } from "expo-router";
import BookOpen from "lucide-react-native/icons/book-open-text";
import Notebook from "lucide-react-native/icons/notebook-pen";
import Warehouse from "lucide-react-native/icons/package-open";
import Scale from "lucide-react-native/icons/scale";
import Sunrise from "lucide-react-native/icons/sunrise";
import { type ReactNode, useEffect } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours, useWide } from "../../theme/theme";
import { Guard } from "../../ui/guard";
import { Link } from "../../ui/link";
import { Small } from "../../ui/words";
import { useKeepAhead } from "./keep-ahead";
import { NewVersion } from "./new-version";
import { Waiting } from "./waiting";

const places = [
  {
    path: "/",
    name: "Bench",
    icon: Scale,
    own: (at: string) => at === "/" || at.startsWith("/bench") || at.startsWith("/read") || at.startsWith("/page"),
  },
  {
    path: "/formulas",
    name: "Formulas",
    icon: BookOpen,
    own: (at: string) => at.startsWith("/formulas") || at.startsWith("/begin"),
  },
  { path: "/day", name: "Day", icon: Sunrise, own: (at: string) => at.startsWith("/day") || at.startsWith("/counter") },
  { path: "/log", name: "Log", icon: Notebook, own: (at: string) => at.startsWith("/log") },
  { path: "/store", name: "Store", icon: Warehouse, own: (at: string) => at.startsWith("/store") },
] as const;

/** The places of the application: along the bottom of a phone, down the left of a wide screen, in the order of the eye. */
export function Shell({ children }: { children: ReactNode }) {
  const colours = useColours();
  const wide = useWide();
  const at = usePathname();
  const onPaper = at.startsWith("/print");
  useKeepAhead();
  useEffect(() => {
    document.documentElement.dataset["page"] = onPaper ? "print" : "screen";
  }, [onPaper]);
  // A page for paper is nothing but itself, and flows as pages do.
  if (onPaper) return <View>{children}</View>;
  const main = (
    <View key="main" role="main" style={styles.main}>
      <Guard what="This place" resetKeys={[at]}>
        {children}
      </Guard>
    </View>
  );
  const below = (place: ReactNode) => (
    <View key="place" style={styles.main}>
      {place}
      <Waiting />
      <NewVersion />
    </View>
  );
  const rail = <Places key="places" wide={wide} />;
  return (
    <View style={[styles.shell, { backgroundColor: colours.paper, flexDirection: wide ? "row" : "column" }]}>
      {wide ? [rail, below(main)] : [below(main), rail]}
    </View>
  );
}

function Places({ wide }: { wide: boolean }) {
  const colours = useColours();
  const at = usePathname();
  return (
    <View
      role="navigation"
      aria-label="Places"
      style={[styles.places, wide ? styles.rail : styles.bar, { borderColor: colours.strongRule, backgroundColor: colours.paper }]}
    >
      {places.map(({ path, name, icon: Icon, own }) => {
        const here = own(at);
        return (
          <Link
            key={path}
            to={path}
            label={name}
            aria-current={here ? "page" : undefined}
            style={[styles.place, { backgroundColor: here ? colours.ink : "transparent" }]}
          >
            <Icon size={22} color={here ? colours.paper : colours.ink} strokeWidth={1.8} />
            <Small strong={here} tone={here ? "paper" : "ink"}>
              {name}
            </Small>
          </Link>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  shell: { flex: 1, minHeight: 0 },
  main: { flex: 1, minWidth: 0, minHeight: 0 },
  places: { zIndex: 2 },
  bar: { flexDirection: "row", borderTopWidth: 1.5 },
  rail: { width: 88, borderRightWidth: 1.5 },
  place: {
    flexGrow: 1,
    flexShrink: 0,
    flexBasis: "auto",
    minHeight: 58,
    alignItems: "center",
    gap: space.hair,
    paddingVertical: space.s,
    maxHeight: 76,
  },
});
