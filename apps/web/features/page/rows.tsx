import { Image, StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Field } from "../../ui/field";
import { Button, Press } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import type { PageState, Row } from "./use-page";

type Read = NonNullable<PageState["read"]>;

/** The page with a frame around each of its lines; a press on one goes to what it was read as. */
export function PagePicture({ read, rows, chosen, onChoose, width }: { read: Read; rows: readonly Row[]; chosen: number | null; onChoose: (k: number) => void; width: number }) {
  const colours = useColours();
  // Only as much of it as has print on it.
  const margin = 0.03 * read.width;
  const left = Math.max(0, Math.min(read.width, ...rows.map(({ box }) => box.x0)) - margin);
  const top = Math.max(0, Math.min(read.height, ...rows.map(({ box }) => box.y0)) - margin);
  const right = rows.length === 0 ? read.width : Math.min(read.width, Math.max(...rows.map(({ box }) => box.x1)) + margin);
  const bottom = rows.length === 0 ? read.height : Math.min(read.height, Math.max(...rows.map(({ box }) => box.y1)) + margin);
  const [x, y] = rows.length === 0 ? [0, 0] : [left, top];
  const scale = width / (right - x);
  return (
    <View style={[styles.picture, { width, height: (bottom - y) * scale, borderColor: colours.rule }]}>
      <Image
        source={{ uri: read.url }}
        style={{ position: "absolute", left: -x * scale, top: -y * scale, width: read.width * scale, height: read.height * scale }}
        alt="The page as it was read"
      />
      {rows.map((row, k) => (
        <Press
          key={k}
          label={`Line ${k + 1}: ${row.said ?? "left out"}${row.seen ? "" : ", to be looked at"}`}
          onPress={() => onChoose(k)}
          style={[
            styles.frame,
            {
              left: (row.box.x0 - x) * scale - 3,
              top: (row.box.y0 - y) * scale - 2,
              width: (row.box.x1 - row.box.x0) * scale + 6,
              height: (row.box.y1 - row.box.y0) * scale + 4,
              borderColor: row.seen ? "transparent" : colours.caution,
              borderBottomColor: row.seen ? colours.rule : colours.caution,
            },
            chosen === k ? { borderColor: colours.ink, borderBottomColor: colours.ink } : null,
          ]}
        >
          {null}
        </Press>
      ))}
    </View>
  );
} // prettier-ignore

const STRIP = 40;

/** The piece of the page on which a line stands, drawn as high as a line of print. */
function Piece({ read, row, width }: { read: Read; row: Row; width: number }) {
  const { x0, y0, x1, y1 } = row.box;
  const pad = Math.round(0.3 * (y1 - y0));
  const scale = Math.min(STRIP / Math.min(y1 - y0 + 2 * pad, read.height), width / (x1 - x0 + 2 * pad));
  return (
    <View style={[styles.piece, { width: Math.min(width, (x1 - x0 + 2 * pad) * scale), height: (y1 - y0 + 2 * pad) * scale }]}>
      <Image
        source={{ uri: read.url }}
        alt=""
        style={{
          position: "absolute",
          left: -(x0 - pad) * scale,
          top: -(y0 - pad) * scale,
          width: read.width * scale,
          height: read.height * scale,
        }}
      />
    </View>
  );
}

/** A line as it was read beside its piece of the picture. What is open shows what else it may be, and is settled by a press. */
export function ReadRow({ read, row, k, chosen, onSay, width }: { read: Read; row: Row; k: number; chosen: boolean; onSay: (said: string | null) => void; width: number }) {
  const colours = useColours();
  const open = !row.seen;
  return (
    <View role="listitem" nativeID={`line-${k}`} style={[styles.row, { borderBottomColor: colours.rule }, chosen ? { borderLeftColor: colours.ink } : null]}>
      <Piece read={read} row={row} width={width} />
      {row.said === null ? (
        <View style={styles.line}>
          <Body tone="faint" style={styles.grow}>{`Left out: ${row.text}`}</Body>
          <Button kind="quiet" label={`Take it in: line ${k + 1}`} onPress={() => onSay(row.text)}>
            Take it in
          </Button>
        </View>
      ) : (
        <View style={styles.line}>
          <Field label={`Line ${k + 1}`} hideLabel value={row.said} onChange={onSay} style={styles.grow} />
          <Button kind="quiet" label={`Leave out line ${k + 1}`} onPress={() => onSay(null)}>
            Leave out
          </Button>
        </View>
      )}
      {open ? (
        <View style={styles.asked}>
          <Small tone="caution">{row.choices.length > 0 ? "It was not seen well. Which of these is printed?" : "It was not seen well. Is it as it is printed?"}</Small>
          <View style={styles.choices}>
            {[row.text, ...row.choices].map((text) => (
              <Button key={text} label={`It is: ${text}`} onPress={() => onSay(text)}>
                {text.length > 60 ? `${text.slice(0, 57)} …` : text}
              </Button>
            ))}
          </View>
        </View>
      ) : null}
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  picture: { position: "relative", borderWidth: 1, overflow: "hidden" },
  frame: { position: "absolute", borderWidth: 2, minHeight: 0, minWidth: 0, padding: 0 },
  piece: { overflow: "hidden", position: "relative" },
  row: {
    borderBottomWidth: 1,
    borderLeftWidth: 3,
    borderLeftColor: "transparent",
    paddingVertical: space.s,
    paddingLeft: space.xs,
    gap: space.xs,
  },
  line: { flexDirection: "row", alignItems: "center", gap: space.s },
  grow: { flex: 1, minWidth: 0 },
  asked: { gap: space.xs },
  choices: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
});
