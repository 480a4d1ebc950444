import type { PacketPrint, Shelf } from "@uprise/core";
import { ownOf } from "@uprise/core/page";
import { useEffect, useRef, useState } from "react";
import { StyleSheet, View } from "react-native";
import { lettersOf, megabytesFor, ownLanguage, pictureReader, type PictureReader } from "../../device/picture";
import { ask } from "../../device/workers";
import { space } from "../../theme/scale";
import { Field } from "../../ui/field";
import { FileButton } from "../../ui/file-button";
import { Button } from "../../ui/press";
import { Body, Small } from "../../ui/words";

/** The print of a packet from its photograph: read, looked over as text, then filled in. What is not known for certain is named and left open. */
export function PrintPhoto({ shelf, onTake }: { shelf: Shelf; onTake: (print: PacketPrint) => void }) {
  const reader = useRef<PictureReader | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [open, setOpen] = useState<readonly string[]>([]);
  const [named, setNamed] = useState<readonly string[]>([]);
  const stop = (): void => {
    reader.current?.stop();
    reader.current = null;
    setShare(null);
  };
  useEffect(() => () => reader.current?.stop(), []);
  const language = ownLanguage();
  const read = async (file: File): Promise<void> => {
    stop();
    const mine = pictureReader();
    reader.current = mine;
    setFault(null);
    setOpen([]);
    setShare(0);
    const opened = await mine.open(file);
    const found = opened.ok ? await mine.read(0, lettersOf[language], {}, (done) => reader.current === mine && setShare(done)) : opened;
    if (reader.current !== mine) return;
    stop();
    if (!found.ok) return setFault(found.why);
    setText(await ask("packet-print", found.page.words, language, ownOf(shelf)));
  };
  const take = async (): Promise<void> => {
    const print = await ask("packet-says", text ?? "", ownOf(shelf));
    setOpen(print.open);
    setNamed(print.allergens);
    onTake(print);
  };
  return (
    <View style={styles.all}>
      {share === null ? (
        <FileButton accept="image/jpeg,image/png,image/webp,application/pdf" capture onFile={(file) => void read(file)}>
          Read it from a photograph
        </FileButton>
      ) : (
        <View style={styles.row}>
          <Body live="polite">{`Reading it, ${Math.round(100 * share)} %`}</Body>
          <Button onPress={stop}>Stop</Button>
        </View>
      )}
      {text === null ? (
        <Small tone="faint">{`On this device; the first time ${megabytesFor(lettersOf[language]).toFixed(1)} MB come from the kitchen's server.`}</Small>
      ) : (
        <>
          <Field label="What is printed on it" value={text} onChange={setText} multiline rows={6} hint="Look it over: letters and numbers of small print are easily taken for others." />
          <Button onPress={() => void take()}>Fill in what it says</Button>
        </>
      )}
      {named.length > 0 ? <Body>{`Allergens that it names: ${named.join(", ")}.`}</Body> : null}
      {open.map((words) => (
        <Small key={words} tone="caution">
          {words}
        </Small>
      ))}
      {fault ? <Body tone="stop">{fault}</Body> : null}
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  all: { gap: space.s, alignItems: "flex-start" },
  row: { flexDirection: "row", alignItems: "center", gap: space.m },
});
