import type { Language } from "@uprise/core";
import { languages, MOST_PAGES, ownOf } from "@uprise/core/page";
import { type Href, useRouter } from "expo-router";
import { useState } from "react";
import { ScrollView, StyleSheet, View } from "react-native";
import { lettersOf, megabytesFor, ownLanguage } from "../../device/picture";
import { space } from "../../theme/scale";
import { useColours, useWide } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { FileButton } from "../../ui/file-button";
import { Button } from "../../ui/press";
import { useTitle } from "../../ui/use-title";
import { Body, Small, Title } from "../../ui/words";
import { languageNames } from "../reader/language-names";
import { handOver, usePasted } from "../reader/pasted";
import { wire } from "../wire/client";
import { useKitchenSoon } from "../wire/queries";
import { SetCorners } from "./corners";
import { PagePicture, ReadRow } from "./rows";
import { HARDLY, usePage } from "./use-page";

const PICTURES = "image/jpeg,image/png,image/webp";
const places = [
  { value: "instead", label: "In place of what is pasted" },
  { value: "under", label: "Under it" },
];
const tongues = languages.map((value) => ({ value, label: languageNames[value] }));

/** A recipe from a photograph of its page, a picture or a PDF: read on this device, looked at line by line beside the picture, then pasted. */
export function PageScreen() {
  const wide = useWide();
  const router = useRouter();
  const { pasted } = usePasted();
  const { kitchen } = useKitchenSoon(null);
  const [language, setLanguage] = useState<Language>(ownLanguage);
  const { state, open, again, stop, say } = usePage(ownOf(kitchen.shelf));
  const [chosen, setChosen] = useState<number | null>(null);
  const [setting, setSetting] = useState(false);
  /** The ways to another page are shown beside the one that was read. */
  const [another, setAnother] = useState(false);
  const [width, setWidth] = useState(0);
  const [keeping, setKeeping] = useState(false);
  const [unkept, setUnkept] = useState<string | null>(null);
  /** A page before it was taken: these lines come under its. */
  const [under, setUnder] = useState(false);
  useTitle("Read a page");
  const { read, rows, photograph, share, fault, file, pages, at, seems } = state;
  const open_ = rows.filter(({ seen, said }) => !seen && said !== null).length;
  const left = rows.filter(({ said }) => said === null).length;
  const hasText = pasted !== null && pasted.text.trim() !== "";
  const corners = read?.corners ?? undefined;

  const bring = (one: File): void => {
    setChosen(null);
    setAnother(false);
    void open(one, language);
  };
  const choose = (k: number): void => {
    setChosen(k);
    document.getElementById(`line-${k}`)?.scrollIntoView({ block: "center" });
    document.querySelector<HTMLElement>(`#line-${k} input`)?.focus({ preventScroll: true });
  };
  const take = async (more: boolean): Promise<void> => {
    if (!file) return;
    setKeeping(true);
    setUnkept(null);
    // The photograph stays with the formula; where it cannot be kept now, the text is taken all the same and that is said.
    const hash = file.type.startsWith("image/") ? await wire.keepPhoto(file).then((kept) => kept.hash, (error: Error) => error) : null;
    if (hash instanceof Error && unkept === null) {
      setKeeping(false);
      setUnkept(`The photograph could not be kept (${hash.message}) Press again to go on without it.`);
      return;
    }
    const text = rows.flatMap(({ said }) => (said === null ? [] : [said])).join("\n");
    await handOver(({ measures, ...before }) => {
      const kept = [...((under && before.pages) || []), ...(typeof hash === "string" ? [hash] : [])];
      return {
        measures,
        text: under && before.text.trim() !== "" ? `${before.text.trimEnd()}\n${text}` : text,
        mending: under ? before.mending : {},
        ...(language === "en" ? {} : { language }),
        ...(kept.length > 0 ? { pages: kept.slice(0, MOST_PAGES) } : {}),
      };
    });
    setKeeping(false);
    setUnder(more);
    if (!more) return router.navigate("/read" as Href);
    if (at + 1 < pages) await again(at + 1, {}, language);
    else setAnother(true);
  };

  return (
    <View style={styles.screen}>
      <ScrollView style={styles.screen} contentContainerStyle={styles.content} keyboardShouldPersistTaps="handled">
        <Title>Read a page</Title>
        {read ? null : (
          <Body tone="faint">
            A page of a book, a card, the back of a packet: photographed, or as a picture or PDF. It is read on this device, and a
            photograph stays with its formula. Print is read; handwriting is not.
          </Body>
        )}
        {fault ? <Body tone="stop">{fault}</Body> : null}
        {share === null && !setting && (!read || another) ? (
          <View style={styles.ways}>
            <Choice label="What it is printed in" options={tongues} value={language} onChange={setLanguage} />
            <View style={styles.row}>
              <FileButton kind={read ? "plain" : "main"} accept={PICTURES} capture onFile={bring}>
                Take a photograph
              </FileButton>
              <FileButton accept={`${PICTURES},application/pdf,.pdf`} onFile={bring}>
                Open a picture or PDF
              </FileButton>
            </View>
            <Small tone="faint">{`The first page in a language fetches ${megabytesFor(lettersOf[language]).toFixed(1)} MB from the kitchen's server; from then on it is read without a network too.`}</Small>
          </View>
        ) : null}
        {share === null ? null : <Progress share={share} onStop={stop} />}
        {setting && photograph ? (
          <SetCorners
            photograph={photograph}
            corners={corners ?? framed(photograph)}
            onLeave={() => setSetting(false)}
            onSet={(next) => {
              setSetting(false);
              void again(at, { corners: next, ...(read ? { quarters: read.quarters } : {}) }, language);
            }}
          />
        ) : null}
        {read && share === null && !setting ? (
          <>
            {read.confidence < HARDLY || rows.length === 0 ? (
              <Body tone="caution">
                Hardly a letter of it was read surely. Handwriting is not read, nor what is blurred or very small: type what it says
                beside the picture, or take it again with more light and from straight above.
              </Body>
            ) : null}
            <View style={styles.row}>
              {photograph ? (
                <Button kind="quiet" onPress={() => setSetting(true)}>
                  Set its corners
                </Button>
              ) : null}
              {read.written ? null : (
                <Button kind="quiet" onPress={() => void again(at, { corners: read.corners, quarters: (read.quarters + 1) % 4 }, language)}>
                  Turn it
                </Button>
              )}
              <Button kind="quiet" onPress={() => setAnother(!another)}>
                {another ? "Keep to this one" : "Another page or language"}
              </Button>
              {another && !read.written ? (
                <Button kind="quiet" onPress={() => void again(at, { corners: read.corners, quarters: read.quarters }, language)}>
                  {`Read it again in ${languageNames[language]}`}
                </Button>
              ) : null}
            </View>
            {seems ? (
              <View style={styles.ways}>
                <Body tone="caution">{`It looks ${languageNames[seems]} and was read as ${languageNames[language]}: letters of its own may be wrong.`}</Body>
                <Button
                  onPress={() => {
                    setLanguage(seems);
                    void again(at, { corners: read.corners, quarters: read.quarters }, seems);
                  }}
                >
                  {`Read it in ${languageNames[seems]}`}
                </Button>
              </View>
            ) : null}
            {pages > 1 ? (
              <Choice label="Page" options={Array.from({ length: pages }, (_, k) => ({ value: `${k}`, label: `${k + 1}` }))} value={`${at}`} onChange={(next) => void again(Number(next), {}, language)} />
            ) : null}
            {hasText ? <Choice titled label="These lines go" options={places} value={under ? "under" : "instead"} onChange={(next) => setUnder(next === "under")} /> : null}
            <View style={wide ? styles.beside : styles.under}>
              <View style={wide ? styles.half : null} onLayout={({ nativeEvent }) => setWidth(nativeEvent.layout.width)}>
                {width > 0 ? <PagePicture read={read} rows={rows} chosen={chosen} onChoose={choose} width={width} /> : null}
              </View>
              <View role="list" aria-label="Lines as read" style={wide ? styles.half : null}>
                {rows.map((row, k) => (
                  <ReadRow key={k} read={read} row={row} k={k} chosen={chosen === k} onSay={(said) => say(k, said)} width={Math.max(200, width)} />
                ))}
              </View>
            </View>
          </>
        ) : null}
      </ScrollView>
      {read && share === null && !setting ? (
        <TakeBar
          status={unkept ?? `${rows.length - left} lines${left > 0 ? `, ${left} left out` : ""}${open_ > 0 ? `; ${open_} to be looked at first` : ""}${hasText && !under ? "; what is pasted now is replaced" : ""}${under && (pasted?.pages?.length ?? 0) >= MOST_PAGES ? `; the photographs of the first ${MOST_PAGES} pages are kept` : ""}`}
          tone={unkept ? "stop" : "faint"}
          disabled={open_ > 0 || rows.length === left || keeping || !pasted}
          onFirst={open_ > 0 ? () => choose(rows.findIndex(({ seen, said }) => !seen && said !== null)) : null}
          onTake={() => void take(false)}
          more={at + 1 < pages ? `And page ${at + 2}` : "And another page"}
          onMore={() => void take(true)}
        />
      ) : null}
    </View>
  );
} // prettier-ignore

/** Corners a little inside of a photograph on which none were found. */
const framed = ({ width: w, height: h }: { width: number; height: number }) =>
  [{ x: 0.06 * w, y: 0.06 * h }, { x: 0.94 * w, y: 0.06 * h }, { x: 0.94 * w, y: 0.94 * h }, { x: 0.06 * w, y: 0.94 * h }] as const; // prettier-ignore

function Progress({ share, onStop }: { share: number; onStop: () => void }) {
  const colours = useColours();
  const percent = Math.round(100 * share);
  return (
    <View style={styles.ways}>
      <Body>Reading the page …</Body>
      <View role="progressbar" aria-label="Reading the page" aria-valuenow={percent} aria-valuemin={0} aria-valuemax={100} style={[styles.track, { borderColor: colours.rule }]}>
        <View style={{ width: `${percent}%`, height: "100%", backgroundColor: colours.ink }} />
      </View>
      <Button onPress={onStop}>Stop</Button>
    </View>
  );
} // prettier-ignore

function TakeBar({ status, tone, disabled, onFirst, onTake, more, onMore }: { status: string; tone: "stop" | "faint"; disabled: boolean; onFirst: (() => void) | null; onTake: () => void; more: string; onMore: () => void }) {
  const colours = useColours();
  const wide = useWide();
  return (
    <View style={[styles.bar, { borderTopColor: colours.strongRule }]}>
      <Small tone={tone} style={wide || onFirst ? styles.screen : styles.line} live="polite">
        {status}
      </Small>
      {onFirst ? (
        <Button kind="main" onPress={onFirst}>
          Show me
        </Button>
      ) : (
        <>
          <Button kind="quiet" disabled={disabled} onPress={onMore}>
            {more}
          </Button>
          <Button kind="main" disabled={disabled} onPress={onTake}>
            Weigh these lines
          </Button>
        </>
      )}
    </View>
  );
} // prettier-ignore

const styles = StyleSheet.create({
  screen: { flex: 1 },
  content: { padding: space.m, gap: space.m },
  ways: { gap: space.s, alignItems: "flex-start" },
  row: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "center" },
  beside: { flexDirection: "row", alignItems: "flex-start", gap: space.xl },
  under: { gap: space.m },
  half: { flex: 1, minWidth: 0 },
  line: { width: "100%" },
  track: { width: "100%", maxWidth: 420, height: 14, borderWidth: 1 },
  bar: {
    flexDirection: "row",
    flexWrap: "wrap",
    justifyContent: "flex-end",
    alignItems: "center",
    columnGap: space.m,
    borderTopWidth: 1.5,
    paddingHorizontal: space.m,
    paddingVertical: space.xs,
  },
});
