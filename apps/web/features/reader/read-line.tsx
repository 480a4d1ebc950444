import type { Line, Mending, Question, Range, Reading, Shelf } from "@uprise/core";
import { gramsText, isLeftOpen } from "@uprise/core/page";
import CircleHelp from "lucide-react-native/icons/circle-question-mark";
import EyeOff from "lucide-react-native/icons/eye-off";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Field } from "../../ui/field";
import { NameSearch } from "../../ui/name-search";
import { Button, Press } from "../../ui/press";
import { Body, Figure, Small } from "../../ui/words";
import { useSearch } from "../wire/use-search";

interface ReadLineProps {
  line: Line;
  questions: Question[];
  /** What became of the stretch of the text that begins with this line. */
  account?: Account | undefined;
  shelf: Shelf;
  onMend: (said: Mending[string]) => void;
  onRewrite: (text: string) => void;
}

export type Account = NonNullable<Reading["accounted"]>[number];

/** What a line that is none of the list was taken for. */
const takenFor: Partial<Record<Account["as"], string>> = { step: "A step", fact: "About the bake", part: "Opens a part" };

/** What is asked of a name may have an answer that is not among the choices. */
const ofNames = new Set<Question["kind"]>(["which-ingredient", "spelling", "which-one"]);

const spreadText = (grams: Range): string | null =>
  grams.high - grams.low < 0.03 * Math.max(grams.mid, 1)
    ? null
    : `${gramsText(grams.low).replace(" g", "")}–${gramsText(grams.high)}`;

/** One line of the paste: as written, as read, with its question or its mending in place. */
export function ReadLine({ line, questions, account, shelf, onMend, onRewrite }: ReadLineProps) {
  const colours = useColours();
  const [open, setOpen] = useState(false);
  if (line.role !== "ingredient") {
    return (
      <View role="listitem" style={styles.aside}>
        <Small tone="faint" strong={line.role === "title" || line.role === "heading"}>
          {line.source.trim()}
        </Small>
        {account?.as === "aside" ? (
          <View style={styles.offer}>
            <Small tone="caution" style={styles.shrink}>
              {`Left aside. ${account.why ?? ""}`.trim()}
            </Small>
            {open ? null : (
              <Button kind="quiet" onPress={() => setOpen(true)}>
                It goes in
              </Button>
            )}
          </View>
        ) : account && takenFor[account.as] ? (
          <Small tone="faint">{line.role === "title" ? "The title" : takenFor[account.as]}</Small>
        ) : null}
        {questions.map((question) => (
          <Asked key={question.id} question={question} onMend={onMend} onOther={() => setOpen(true)} />
        ))}
        {open ? <Mend line={line} shelf={shelf} onMend={onMend} onRewrite={onRewrite} onDone={() => setOpen(false)} /> : null}
      </View>
    );
  }
  const name = line.ingredientId ? (shelf.get(line.ingredientId)?.name ?? line.name) : line.name;
  const spread = line.grams ? spreadText(line.grams) : null;
  const unread = line.state === "unread";
  return (
    <View
      role="listitem"
      style={[
        styles.line,
        {
          borderBottomColor: colours.rule,
          borderLeftColor: unread ? colours.stop : line.state === "asked" ? colours.caution : "transparent",
        },
      ]}
    >
      <Press onPress={() => setOpen(!open)} aria-expanded={open || unread} style={styles.head}>
        <View style={styles.words}>
          <View style={styles.nameLine}>
            {unread ? (
              <EyeOff size={18} color={colours.stop} />
            ) : line.state === "asked" ? (
              <CircleHelp size={18} color={colours.caution} />
            ) : null}
            <Body strong style={styles.shrink}>
              {unread ? `Not read: ${line.name}` : name}
            </Body>
          </View>
          {(line.item ?? 0) === 0 ? <Small tone="faint">{line.source.trim()}</Small> : null}
          {line.spoken ? <Small tone="faint">An estimate: nobody measures that.</Small> : null}
        </View>
        <View style={styles.mass}>
          <Figure>{line.grams ? gramsText(line.grams.mid) : "–"}</Figure>
          {spread ? <Small tone="faint">{spread}</Small> : null}
        </View>
      </Press>
      {questions.map((question) => (
        <Asked key={question.id} question={question} onMend={onMend} onOther={() => setOpen(true)} />
      ))}
      {isLeftOpen(line) && line.grams ? (
        <View style={styles.offer}>
          <Body style={styles.shrink}>If you like it: not in the formula yet.</Body>
          <Button onPress={() => onMend({ taken: true, left: false })}>Take it</Button>
        </View>
      ) : null}
      {open || unread ? (
        <Mend line={line} shelf={shelf} onMend={onMend} onRewrite={onRewrite} onDone={() => setOpen(false)} />
      ) : null}
    </View>
  );
}

function Asked({ question, onMend, onOther }: { question: Question; onMend: ReadLineProps["onMend"]; onOther: () => void }) {
  const [grams, setGrams] = useState("");
  const value = Number(grams.replace(",", "."));
  const fits = grams.trim() !== "" && Number.isFinite(value) && value >= 0;
  return (
    <View style={styles.asked} role="group" aria-label={question.message}>
      <Body>{question.message}</Body>
      <View style={styles.choices}>
        {question.choices.map((choice, index) => (
          <Button key={choice.label} onPress={() => onMend({ choice: { [question.kind]: index } })}>
            {choice.label}
          </Button>
        ))}
        {question.id.startsWith("stray-") ? (
          <Button kind="quiet" onPress={() => onMend({ left: true })}>
            It does not
          </Button>
        ) : null}
        {ofNames.has(question.kind) ? (
          <>
            <Button kind="quiet" onPress={onOther}>
              Something else
            </Button>
            <Button kind="quiet" onPress={() => onMend({ left: true })}>
              Leave it unread
            </Button>
          </>
        ) : null}
      </View>
      {question.choices.length === 0 ? (
        <View style={styles.choices}>
          <Field
            label="Grams"
            value={grams}
            onChange={setGrams}
            keyboard="numeric"
            error={grams !== "" && !fits ? "A number of grams, such as 40." : undefined}
            onSubmit={() => fits && onMend({ grams: value })}
          />
          <Button onPress={() => onMend({ grams: value })} disabled={!fits}>
            That much
          </Button>
        </View>
      ) : null}
    </View>
  );
}

/** Mending a line where it stands: rewrite it, or say which ingredient it means. */
function Mend({
  line,
  shelf,
  onMend,
  onRewrite,
  onDone,
}: {
  line: Line;
  shelf: Shelf;
  onMend: ReadLineProps["onMend"];
  onRewrite: (text: string) => void;
  onDone: () => void;
}) {
  const [text, setText] = useState(line.source.trim());
  const [query, setQuery] = useState("");
  const found = useSearch(query, shelf, 5);
  return (
    <View style={styles.mend}>
      <NameSearch
        label="It means"
        query={query}
        onQuery={setQuery}
        found={found}
        onPick={(item) => {
          onMend({ ingredientId: item.id });
          setQuery("");
          onDone();
        }}
      />
      <Field label="Or write the line anew" value={text} onChange={setText} onSubmit={() => onRewrite(text)} />
      <Button kind="quiet" onPress={() => onRewrite(text)} disabled={text.trim() === line.source.trim()}>
        Read it again
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({
  aside: { paddingVertical: space.s, paddingLeft: space.m },
  line: { borderBottomWidth: 1, borderLeftWidth: 5, paddingLeft: space.s },
  head: { flexDirection: "row", alignItems: "center", gap: space.s, paddingVertical: space.s },
  words: { flex: 1, minWidth: 0 },
  nameLine: { flexDirection: "row", gap: space.xs, alignItems: "center" },
  shrink: { flexShrink: 1 },
  mass: { alignItems: "flex-end" },
  asked: { gap: space.s, paddingBottom: space.m },
  choices: { flexDirection: "row", flexWrap: "wrap", gap: space.s, alignItems: "flex-end" },
  offer: { flexDirection: "row", flexWrap: "wrap", gap: space.m, alignItems: "center", paddingBottom: space.s },
  mend: { gap: space.s, paddingBottom: space.m, paddingLeft: space.m },
});
