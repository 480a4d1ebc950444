import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { RestoreAnswer } from "@uprise/contract";
import { useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { download } from "../../device/download";
import { space } from "../../theme/scale";
import { FileButton } from "../../ui/file-button";
import { Button } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import { wire } from "../wire/client";
import { keys } from "../wire/keys";

const whatWords: Record<string, string> = {
  formulas: "formula", ingredients: "ingredient", vessels: "pan", ovens: "oven", plans: "day", bakes: "bake", devices: "device",
  packets: "packet", trials: "trial", tastings: "tasting", learnt: "something learnt", seasons: "season",
}; // prettier-ignore
const SHOWN = 12;

const ageWords = (hours: number): string => (hours < 1.5 ? "an hour ago" : hours < 36 ? `${Math.round(hours)} hours ago` : `${Math.round(hours / 24)} days ago`); // prettier-ignore

/** The kitchen as a file: kept, brought back with a look at what that does, undone. */
export function CopiesShelf() {
  const { data: health } = useQuery({ queryKey: keys.health.all, queryFn: ({ signal }) => wire.health(signal) });
  const keep = useMutation({
    mutationFn: (what: "archive" | "trials" | "bakes") => wire.exportFile({ what, format: what === "archive" ? "zip" : "csv" }),
    onSuccess: ({ name, content }) => download(name, content),
  });
  return (
    <ScrollView contentContainerStyle={styles.page}>
      <View style={styles.part}>
        <Heading>Take it with you</Heading>
        <Body>Everything of this kitchen in one ZIP: formulas with all versions, shelves, days, bakes, trials, photographs. It is open and described; nothing in it needs Uprise to be read.</Body>
        <View style={styles.row}>
          <Button kind="main" disabled={keep.isPending} onPress={() => keep.mutate("archive")}>
            {keep.isPending ? "Packing it" : "Keep the whole kitchen"}
          </Button>
          <Button disabled={keep.isPending} onPress={() => keep.mutate("trials")}>
            Trials as a table
          </Button>
          <Button disabled={keep.isPending} onPress={() => keep.mutate("bakes")}>
            Bakes as a table
          </Button>
        </View>
        {keep.error ? <Body tone="stop">{keep.error.message}</Body> : null}
        <Small tone="faint">
          {`A copy is made into the data folder every night, fourteen of them. Each is read back before an older one goes. ${health ? (health.lastCopyHours == null ? "The first is still to come." : `The last was made ${ageWords(health.lastCopyHours)}.`) : ""}`}
        </Small>
        {health?.copyFault ? <Body tone="caution">{health.copyFault}</Body> : null}
      </View>
      <Restore />
    </ScrollView>
  );
} // prettier-ignore

function Restore() {
  const queries = useQueryClient();
  const [file, setFile] = useState<File | null>(null);
  const look = useMutation({ mutationFn: (archive: File) => wire.restore(archive, false) });
  const take = useMutation({
    mutationFn: (archive: File) => wire.restore(archive, true),
    onSuccess: () => queries.invalidateQueries(),
  });
  const undo = useMutation({ mutationFn: (id: string) => wire.undoRestore(id), onSuccess: () => queries.invalidateQueries() });
  const done = take.data;
  const shown = done ?? look.data;
  const error = look.error ?? take.error ?? undo.error;
  return (
    <View style={styles.part}>
      <Heading>Bring one back</Heading>
      <Body>What it does is shown first. Nothing that is newer here is written over, and all of it can be undone.</Body>
      <FileButton
        accept=".zip,application/zip"
        disabled={look.isPending || take.isPending}
        onFile={(archive) => {
          take.reset();
          undo.reset();
          setFile(archive);
          look.mutate(archive);
        }}
      >
        {look.isPending ? "Reading it" : "Open an archive"}
      </FileButton>
      {error ? <Body tone="stop">{error.message}</Body> : null}
      {shown && !undo.data ? (
        <View style={styles.part} role="status">
          <Preview answer={shown} done={done !== undefined} />
          {done ? (
            done.undo ? (
              <Button onPress={() => undo.mutate(done.undo ?? "")}>Undo it</Button>
            ) : null
          ) : shown.add.length + shown.newer.length + shown.back.length + shown.photos + shown.events > 0 ? (
            <Button kind="main" disabled={take.isPending || !file} onPress={() => file && take.mutate(file)}>
              Bring it in
            </Button>
          ) : (
            <Body>All of it is here already.</Body>
          )}
        </View>
      ) : null}
      {undo.data ? (
        <Body role="status">{`${undo.data.undone} things are as they were.${undo.data.kept.length > 0 ? ` Changed since, and kept: ${undo.data.kept.join(", ")}.` : ""}`}</Body>
      ) : null}
    </View>
  );
}

function Preview({ answer, done }: { answer: RestoreAnswer; done: boolean }) {
  const { archive, add, newer, back, older, conflict, same, photos, events, flaws } = answer;
  return (
    <>
      <Small tone="faint">{`Made ${archive.madeAt.slice(0, 10)} by Uprise ${archive.program}: ${archive.things} things, ${archive.photos} photographs.`}</Small>
      {flaws.length > 0 ? (
        <View>
          <Body strong tone="caution">{`Missing from it or damaged: ${flaws.length}. The rest is whole and can be taken.`}</Body>
          {flaws.slice(0, SHOWN).map(({ path, why }) => (
            <Body key={path}>{`${path}: ${why}`}</Body>
          ))}
          {flaws.length > SHOWN ? <Small tone="faint">{`and ${flaws.length - SHOWN} more`}</Small> : null}
        </View>
      ) : null}
      <Things title={done ? "Added" : "New here"} things={add} />
      <Things title={done ? "Back on their list" : "Removed here, and in the archive"} things={back} />
      <Things title={done ? "Brought to a newer version" : "Newer in the archive"} things={newer} />
      <Things title="Newer here, and stays" things={older} />
      <Things title="The same version with another content; the one here stays" things={conflict} />
      <Body>{`${same} the same; ${photos} ${photos === 1 ? "photograph" : "photographs"} and ${events} ${events === 1 ? "event" : "events"} ${done ? "came" : "would come"} with them.`}</Body>
    </>
  );
}

function Things({ title, things }: { title: string; things: RestoreAnswer["add"] }) {
  if (things.length === 0) return null;
  return (
    <View>
      <Body strong>{`${title}: ${things.length}`}</Body>
      {things.slice(0, SHOWN).map(({ what, id, title: name, here, there }) => (
        <Body
          key={`${what}/${id}`}
        >{`${name}, ${whatWords[what] ?? what}${here !== undefined && there !== undefined && here !== there ? ` (version ${here} here, ${there} there)` : ""}`}</Body>
      ))}
      {things.length > SHOWN ? <Small tone="faint">{`and ${things.length - SHOWN} more`}</Small> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  page: { padding: space.m, gap: space.xl, maxWidth: 620, width: "100%" },
  part: { gap: space.m, alignItems: "flex-start" },
  row: { flexDirection: "row", flexWrap: "wrap", gap: space.s },
});
