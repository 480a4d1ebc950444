import { hashKey } from "@tanstack/react-query";
import {
  type Book,
  CoreError,
  defaultsOf,
  type Formula,
  gramsText,
  type JudgedPart,
  kindName,
  kinds,
  nestedId,
  type Part,
  type Shelf,
  type Split,
  splitOf,
} from "@uprise/core";
import Trash from "lucide-react-native/icons/trash";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Field } from "../../ui/field";
import { NumberField } from "../../ui/number-field";
import { Button, Press } from "../../ui/press";
import { Failed } from "../../ui/state";
import { Body, Small } from "../../ui/words";
import { AddLine } from "../bench/add-line";
import { FindingNotice } from "../bench/findings";
import { Strip } from "../bench/strip";
import { useVessels } from "../wire/queries";

interface PartsRoomProps {
  formula: Formula;
  shelf: Shelf;
  book: Book;
  onChange: (formula: Formula, fold?: boolean) => void;
}

/** The split of a formula, or why it cannot be judged. */
function judge(formula: Formula, book: Book, shelf: Shelf): Split | string {
  try {
    return splitOf(formula, book, shelf);
  } catch (error) {
    if (error instanceof CoreError) return error.message;
    throw error;
  }
}

const freshId = (parts: readonly Part[]): string => {
  let n = parts.length + 1;
  while (parts.some((part) => part.id === `p${n}`)) n++;
  return `p${n}`;
};

/** One base batter, several things: shares, additions, kinds and pans, each judged by itself. */
export function PartsRoom({ formula, shelf, book, onChange }: PartsRoomProps) {
  const parts = formula.parts ?? [];
  const split = judge(formula, book, shelf);
  const set = (next: Part[], fold = false): void => onChange({ ...formula, parts: next }, fold);
  const changePart = (part: Part, fold = false): void =>
    set(
      parts.map((old) => (old.id === part.id ? part : old)),
      fold,
    );
  if (typeof split === "string") return <Failed title="The parts cannot be judged." detail={split} />;
  const left = Math.round(100 * split.left);
  return (
    <View style={styles.room}>
      <Small tone="faint">
        One bowl, several things: each part takes its share of the batter, gets its own additions, and is judged in its own pan.
      </Small>
      {split.parts.map((judged) => (
        <PartView
          key={judged.part.id}
          judged={judged}
          formula={formula}
          shelf={shelf}
          book={book}
          onChange={changePart}
          onRemove={() => set(parts.filter((old) => old.id !== judged.part.id))}
        />
      ))}
      {parts.length === 0 ? null : left === 0 ? (
        <Body tone="good">All of the batter is shared out.</Body>
      ) : (
        <Body tone={left < 0 ? "stop" : "caution"}>
          {left > 0 ? `${left} % of the batter is left.` : `${-left} % more is shared out than there is.`}
        </Body>
      )}
      <Button
        onPress={() => {
          const share = parts.length === 0 ? 0.5 : Math.max(0, Math.round(100 * split.left) / 100);
          const { vessel, oven } = defaultsOf("muffin");
          set([
            ...parts,
            {
              id: freshId(parts),
              name: parts.length === 0 ? "First part" : "Another part",
              share,
              additions: [],
              kind: "muffin",
              vessel,
              oven,
            },
          ]);
        }}
      >
        Add a part
      </Button>
    </View>
  );
}

function PartView({
  judged: { part, analysis },
  formula,
  shelf,
  book,
  onChange,
  onRemove,
}: {
  judged: JudgedPart;
  formula: Formula;
  shelf: Shelf;
  book: Book;
  onChange: (part: Part, fold?: boolean) => void;
  onRemove: () => void;
}) {
  const colours = useColours();
  const [choosing, setChoosing] = useState<"kind" | "pan" | null>(null);
  const { data } = useVessels();
  const pan = data?.items.find((entry) => hashKey([entry.vessel]) === hashKey([part.vessel]))?.name ?? "A pan of its own measures";
  const nameOf = (id: string): string => shelf.get(id)?.name ?? book(nestedId(id) ?? "")?.title ?? id;
  return (
    <View role="group" aria-label={part.name} style={[styles.part, { borderTopColor: colours.strongRule }]}>
      <View style={styles.fields}>
        <Field
          label="Called"
          value={part.name}
          onChange={(name) => onChange({ ...part, name: name === "" ? " " : name }, true)}
          style={styles.grow}
        />
        <NumberField
          label="Share of the batter"
          unit="%"
          least={0}
          most={100}
          value={100 * part.share}
          onChange={(percent) => onChange({ ...part, share: percent / 100 }, true)}
          style={styles.share}
        />
        <Press onPress={onRemove} label={`Remove ${part.name}`} style={styles.remove}>
          <Trash size={20} color={colours.faint} />
        </Press>
      </View>
      <View style={styles.fields}>
        <Button kind="quiet" onPress={() => setChoosing(choosing === "kind" ? null : "kind")}>
          {kindName[part.kind]}
        </Button>
        <Button kind="quiet" onPress={() => setChoosing(choosing === "pan" ? null : "pan")}>
          {pan}
        </Button>
        <NumberField
          label="Oven"
          unit="°C"
          least={60}
          most={320}
          value={part.oven.celsius}
          onChange={(celsius) => onChange({ ...part, oven: { ...part.oven, celsius } }, true)}
          style={styles.share}
        />
      </View>
      {choosing === "kind"
        ? kinds.map((kind) => (
            <Button
              key={kind}
              kind="quiet"
              onPress={() => {
                onChange({
                  ...part,
                  kind,
                  ...(kind === part.kind ? {} : { vessel: defaultsOf(kind).vessel, oven: defaultsOf(kind).oven }),
                });
                setChoosing(null);
              }}
            >
              {kindName[kind]}
            </Button>
          ))
        : null}
      {choosing === "pan"
        ? (data?.items ?? []).map((entry) => (
            <Button
              key={entry.id}
              kind="quiet"
              onPress={() => {
                onChange({ ...part, vessel: entry.vessel });
                setChoosing(null);
              }}
            >
              {entry.name}
            </Button>
          ))
        : null}
      {part.additions.map((line) => (
        <View key={line.id} style={[styles.addition, { borderBottomColor: colours.rule }]}>
          <Body style={styles.grow}>
            {nameOf(line.ingredientId)}, {gramsText(line.grams.mid)}
          </Body>
          <Press
            onPress={() => onChange({ ...part, additions: part.additions.filter((old) => old.id !== line.id) })}
            label={`Remove ${nameOf(line.ingredientId)} from ${part.name}`}
            style={styles.remove}
          >
            <Trash size={18} color={colours.faint} />
          </Press>
        </View>
      ))}
      <AddLine
        measures={formula.measures}
        shelf={shelf}
        label={`Add to ${part.name}`}
        onAdd={(line) =>
          onChange({
            ...part,
            additions: [...part.additions, { ...line, id: `a${part.additions.length + 1}-${line.ingredientId}`.slice(0, 64) }],
          })
        }
      />
      {analysis ? (
        <>
          <Strip analysis={analysis} open={null} onOpen={() => undefined} still />
          {analysis.findings
            .filter((finding) => finding.severity !== "note")
            .map((finding) => (
              <FindingNotice key={finding.id} finding={finding} />
            ))}
        </>
      ) : (
        <Small tone="faint">It weighs nothing yet.</Small>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  room: { gap: space.m },
  part: { borderTopWidth: 1.5, paddingTop: space.s, gap: space.s },
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m, alignItems: "flex-end" },
  grow: { flex: 1, minWidth: 120 },
  share: { width: 130 },
  remove: { alignItems: "center" },
  addition: { flexDirection: "row", alignItems: "center", borderBottomWidth: 1 },
});
