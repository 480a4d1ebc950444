import type { Kind, NamedVessel, Vessel } from "@uprise/core";
import { filledAsLiked } from "@uprise/core/page-bench";
import { kindName, kinds } from "@uprise/core/page";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Press } from "../../ui/press";
import { Small } from "../../ui/words";
import { FillSection } from "../instruments/section";
import { Silhouette } from "./silhouette";

/** Pans in section, as full as a batter likes them. */
export function Pans({
  usual,
  usualName,
  pans,
  chosen,
  onPan,
}: {
  usual: Vessel;
  usualName: string;
  pans: readonly NamedVessel[];
  chosen: string;
  onPan: (id: string) => void;
}) {
  const colours = useColours();
  return (
    <View style={styles.kinds} role="group" aria-label="Pan">
      {[{ id: "", name: usualName, vessel: usual }, ...pans].map(({ id, name, vessel }) => {
        const here = id === chosen;
        return (
          <Press
            key={id}
            onPress={() => onPan(id)}
            aria-pressed={here}
            label={name}
            style={[styles.pan, { borderBottomColor: here ? colours.ink : colours.rule, borderBottomWidth: here ? 4 : 1 }]}
          >
            <FillSection fill={filledAsLiked(vessel)} vessel={vessel} width={96} />
            <Small strong={here} style={styles.kindName}>
              {name}
            </Small>
          </Press>
        );
      })}
    </View>
  );
}

/** The kinds as they stand on the tray, to be tapped. */
export function Kinds({ kind, onKind }: { kind: Kind; onKind: (kind: Kind) => void }) {
  const colours = useColours();
  return (
    <View style={styles.kinds} role="group" aria-label="Kind of bake">
      {kinds.map((one) => (
        <Press
          key={one}
          onPress={() => onKind(one)}
          aria-pressed={one === kind}
          label={kindName[one]}
          style={[
            styles.kind,
            { borderBottomColor: one === kind ? colours.ink : colours.rule, borderBottomWidth: one === kind ? 4 : 1 },
          ]}
        >
          <Silhouette kind={one} />
          <Small strong={one === kind} style={styles.kindName}>
            {kindName[one].replace(/ and other.*/, "")}
          </Small>
        </Press>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  kinds: { flexDirection: "row", flexWrap: "wrap" },
  kind: { width: 112, alignItems: "center", justifyContent: "flex-end", paddingVertical: space.s },
  pan: { width: 120, alignItems: "center", justifyContent: "flex-end", gap: space.xs, paddingVertical: space.s },
  kindName: { textAlign: "center" },
});
