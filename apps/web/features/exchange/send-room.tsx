import { useMutation } from "@tanstack/react-query";
import type { ExportFormat } from "@uprise/contract";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { copyText, download } from "../../device/download";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Link } from "../../ui/link";
import { Button } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import { wire } from "../wire/client";

const files: { format: ExportFormat; name: string; words: string }[] = [
  { format: "markdown", name: "Markdown", words: "Reads like a recipe, and is read back here to the hundredth of a gram." },
  { format: "jsonld", name: "For web pages and other programs", words: "JSON-LD, by the vocabulary of schema.org." },
  { format: "csv", name: "Table, CSV", words: "One line an ingredient, for a spreadsheet." },
];

/** A formula on its way out: as a file, as a message, on paper. */
export function SendRoom({ id, unsaved }: { id: string; unsaved: boolean }) {
  const colours = useColours();
  const [said, setSaid] = useState<string | null>(null);
  const save = useMutation({
    mutationFn: (format: ExportFormat) => wire.exportFile({ what: "formula", ids: [id], format }),
    onSuccess: ({ name, content }) => {
      download(name, content);
      setSaid(`${name} is with your downloads.`);
    },
  });
  const copy = useMutation({
    mutationFn: async () => copyText(await (await wire.exportFile({ what: "formula", ids: [id], format: "text" })).content.text()),
    onSuccess: (done) =>
      setSaid(done ? "It is on the clipboard; paste it into a message." : "This browser lets nothing onto its clipboard."),
  });
  const whole = useMutation({
    mutationFn: () => wire.exportFile({ what: "archive", ids: [id], format: "zip" }),
    onSuccess: ({ name, content }) => {
      download(name, content);
      setSaid(`${name} is with your downloads.`);
    },
  });
  const error = save.error ?? copy.error ?? whole.error;
  return (
    <View style={styles.room}>
      {unsaved ? <Body tone="caution">What goes out is what is saved; the bench has changes that are not.</Body> : null}
      <View style={styles.part}>
        <Heading>As a file</Heading>
        {files.map(({ format, name, words }) => (
          <View key={format} style={[styles.line, { borderBottomColor: colours.rule }]}>
            <View style={styles.grow}>
              <Body>{name}</Body>
              <Small tone="faint">{words}</Small>
            </View>
            <Button label={`Keep as ${name}`} disabled={save.isPending} onPress={() => save.mutate(format)}>
              Keep
            </Button>
          </View>
        ))}
        <View style={[styles.line, { borderBottomColor: colours.rule }]}>
          <View style={styles.grow}>
            <Body>With all that belongs to it, ZIP</Body>
            <Small tone="faint">Its versions, blends, trials and photographs, for another kitchen with Uprise.</Small>
          </View>
          <Button label="Keep with all that belongs to it" disabled={whole.isPending} onPress={() => whole.mutate()}>
            Keep
          </Button>
        </View>
      </View>
      <View style={styles.part}>
        <Heading>In a message</Heading>
        <Button disabled={copy.isPending} onPress={() => copy.mutate()} style={styles.left}>
          Copy it as plain text
        </Button>
      </View>
      <View style={styles.part}>
        <Heading>On paper</Heading>
        <Paper to={`/print/formula/${id}`} words="Formula card, A4 or Letter" />
        <Paper to={`/print/formula/${id}?size=a6`} words="Card for the wall, A6" />
        <Paper to={`/print/label/${id}`} words="Sheet of labels" />
      </View>
      {said ? (
        <Body live="polite" role="status">
          {said}
        </Body>
      ) : null}
      {error ? <Body tone="stop">{error.message}</Body> : null}
    </View>
  );
}

function Paper({ to, words }: { to: string; words: string }) {
  return (
    <Link to={to} style={styles.left}>
      <Body style={styles.underlined}>{words}</Body>
    </Link>
  );
}

const styles = StyleSheet.create({
  room: { gap: space.xl },
  part: { gap: space.s },
  line: { flexDirection: "row", gap: space.m, alignItems: "center", borderBottomWidth: 1, paddingVertical: space.s },
  grow: { flex: 1, minWidth: 0, gap: space.hair },
  left: { alignSelf: "flex-start" },
  underlined: { textDecorationLine: "underline" },
});
