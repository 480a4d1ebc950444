import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { dropPaper, type Paper } from "../../device/papers";
import { space } from "../../theme/scale";
import { Notice } from "../../ui/notice";
import { Button } from "../../ui/press";
import { Body, Small } from "../../ui/words";
import { shortDayClock } from "../../ui/dates";

const MOST_SIGNS = 4000;

/** Drafts that were set aside: one that cannot be read, or one that another tab left. To be looked at, taken up, or thrown away. */
export function Aside({
  papers,
  fits,
  onTakeUp,
}: {
  papers: readonly Paper[];
  fits: (paper: Paper) => boolean;
  onTakeUp: (paper: Paper) => void;
}) {
  const [gone, setGone] = useState<ReadonlySet<string>>(new Set());
  const [open, setOpen] = useState<string | null>(null);
  const left = papers.filter(({ key }) => !gone.has(key));
  return (
    <>
      {left.map((paper) => {
        const readable = fits(paper);
        const when = shortDayClock(new Date(paper.at));
        return (
          <View key={paper.key} style={styles.aside}>
            <Notice
              gravity="caution"
              title={
                readable
                  ? `Another tab left changes of this formula unsaved, ${when}.`
                  : `A draft of ${when} cannot be read and was set aside.`
              }
            >
              <View style={styles.buttons}>
                {readable ? <Button onPress={() => onTakeUp(paper)}>Put them on the bench</Button> : null}
                <Button onPress={() => setOpen(open === paper.key ? null : paper.key)}>
                  {open === paper.key ? "Put it away" : "Look at it"}
                </Button>
                <Button
                  onPress={() => {
                    void dropPaper(paper);
                    setGone(new Set([...gone, paper.key]));
                  }}
                >
                  Throw it away
                </Button>
              </View>
              {open === paper.key ? (
                <View style={styles.text}>
                  <Small tone="faint">As it lies on this device:</Small>
                  <Body>{JSON.stringify(paper.body, null, 1)?.slice(0, MOST_SIGNS) ?? "nothing"}</Body>
                </View>
              ) : null}
            </Notice>
          </View>
        );
      })}
    </>
  );
}

const styles = StyleSheet.create({
  aside: { padding: space.m },
  buttons: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
  text: { maxHeight: 220, overflow: "scroll" },
});
