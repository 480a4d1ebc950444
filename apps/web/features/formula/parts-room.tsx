import { hashKey } from "@tanstack/react-query";
import type { Edit, Formula, FormulaComponent, FormulaLine, JudgedPart, Part } from "@uprise/core";
import { dividable, ovenLimits } from "@uprise/core/page";
import { newPart, partOfKind, leftOf, sharesByTins } from "@uprise/core/page-bench";
import Trash from "lucide-react-native/icons/trash";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Check } from "../../ui/check";
import { Choice } from "../../ui/choice";
import { Field } from "../../ui/field";
import { focusSoon } from "../../ui/focus";
import { NumberField } from "../../ui/number-field";
import { Button, Press } from "../../ui/press";
import { Failed } from "../../ui/state";
import { Body, Small } from "../../ui/words";
import { FindingNotice } from "../balance/findings";
import { KindPicker } from "../instruments/kind-picker";
import { Strip } from "../instruments/strip";
import { newId } from "../wire/client";
import { type KitchenHere, useVessels } from "../wire/queries";
import { AddLine } from "./add-line";
import { lineMass, lineName } from "./groups";
import { useAsked } from "../../device/use-asked";

interface PartsRoomProps {
  formula: Formula;
  kitchen: KitchenHere;
  edit: (edit: Edit) => void;
  faults: ReadonlyMap<string, string>;
}

/** One base batter, several things: shares, additions, kinds and pans, each judged by itself. */
export function PartsRoom({ formula, kitchen, edit, faults }: PartsRoomProps) {
  const parts = formula.parts ?? [];
  const { data, fault } = useAsked("split", [formula, kitchen.data]);
  if (fault) return <Failed title="The parts cannot be judged." detail={fault.message} />;
  // What is typed stands at once; what it comes to follows from the oven.
  const judgedOf = (part: Part): JudgedPart => ({
    part,
    analysis: data?.parts.find((one) => one.part.id === part.id)?.analysis ?? null,
  });
  const split = { parts: parts.map(judgedOf), left: leftOf(formula), unused: data?.unused ?? [] };
  const left = Math.round(100 * split.left);
  const byTins = sharesByTins(parts);
  const isByTins = byTins?.every(({ id, share }) => parts.find((part) => part.id === id)?.share === share) ?? true;
  return (
    <View style={styles.room}>
      <Small tone="faint">
        One bowl, several things, or several tins of different sizes: each part takes its share of the batter, gets its own
        additions, and is judged in its own pan.
      </Small>
      {split.parts.map((judged, index) => (
        <PartView
          key={judged.part.id}
          judged={judged}
          formula={formula}
          kitchen={kitchen}
          edit={edit}
          fault={faults.get(`parts.${index}.name`)}
          onRemove={() => {
            edit({ edit: "remove-part", partId: judged.part.id });
            focusSoon("[data-testid=add-part]");
          }}
        />
      ))}
      {parts.length === 0 ? null : left === 0 ? (
        <Body tone="good">All of the batter is shared out.</Body>
      ) : (
        <Body tone={left < 0 ? "stop" : "caution"}>
          {left > 0 ? `${left} % of the batter is left.` : `${-left} % more is shared out than there is.`}
        </Body>
      )}
      {parts.length > 0 && split.unused.length > 0 ? (
        <Body tone="caution">{`No part gets ${split.unused.map(({ name }) => name.toLowerCase()).join(", ")}.`}</Body>
      ) : null}
      {byTins && !isByTins ? (
        <Button
          kind="quiet"
          onPress={() => byTins.forEach(({ id, share }) => edit({ edit: "set-part", partId: id, set: { share } }))}
        >{`Fill the tins alike: ${byTins.map(({ id, share }) => `${parts.find((part) => part.id === id)?.name ?? id} ${Math.round(100 * share)} %`).join(", ")}`}</Button>
      ) : null}
      <Button testID="add-part" onPress={() => edit({ edit: "add-part", part: newPart(formula, `p-${newId().slice(0, 13)}`) })}>
        Add a part
      </Button>
    </View>
  );
}

function PartView({
  judged: { part, analysis },
  formula,
  kitchen,
  edit,
  fault,
  onRemove,
}: {
  judged: JudgedPart;
  formula: Formula;
  kitchen: KitchenHere;
  edit: (edit: Edit) => void;
  fault: string | undefined;
  onRemove: () => void;
}) {
  const colours = useColours();
  const [choosing, setChoosing] = useState(false);
  const { pans } = useVessels();
  const { shelf } = kitchen;
  const beside = dividable(formula);
  const gets = (component: FormulaComponent): boolean => part.components?.includes(component.id) ?? true;
  const partId = part.id;
  const set = (fields: Partial<Omit<Part, "id" | "additions">>): void => edit({ edit: "set-part", partId, set: fields });
  const pan = pans.find((entry) => hashKey([entry.vessel]) === hashKey([part.vessel]));
  const nameOf = (line: FormulaLine): string => lineName(line, kitchen);
  return (
    <View role="group" aria-label={part.name} style={[styles.part, { borderTopColor: colours.strongRule }]}>
      <View style={styles.fields}>
        <Field label="Called" value={part.name} error={fault} onChange={(name) => set({ name })} style={styles.grow} />
        <NumberField
          label="Share of the batter"
          unit="%"
          least={0}
          most={100}
          value={100 * part.share}
          onChange={(percent) => percent !== undefined && set({ share: percent / 100 })}
          style={styles.share}
        />
        <Press onPress={onRemove} label={`Remove ${part.name}`} style={styles.remove}>
          <Trash size={20} color={colours.faint} />
        </Press>
      </View>
      <KindPicker kind={part.kind} onKind={(kind) => set(partOfKind(part, kind))} />
      <View style={styles.fields}>
        <Button kind="quiet" onPress={() => setChoosing(!choosing)}>
          {pan?.name ?? "A pan of its own measures"}
        </Button>
        <NumberField
          label="Oven"
          unit="°C"
          least={ovenLimits.least}
          most={ovenLimits.most}
          value={part.oven.celsius}
          onChange={(celsius) => celsius !== undefined && set({ oven: { ...part.oven, celsius } })}
          style={styles.share}
        />
      </View>
      {choosing ? (
        <Choice
          label={`Pan of ${part.name}`}
          list
          options={pans.map((entry) => ({ value: entry.id, label: entry.name }))}
          value={pan?.id ?? ""}
          onChange={(id) => {
            const taken = pans.find((entry) => entry.id === id);
            if (taken) set({ vessel: taken.vessel });
          }}
        />
      ) : null}
      {beside.length > 0 ? (
        <View style={styles.gets} role="group" aria-label={`What ${part.name} gets`}>
          <Small tone="faint">It gets</Small>
          {beside.map((component) => (
            <Check
              key={component.id}
              label={component.name}
              on={gets(component)}
              onChange={(on) =>
                set({ components: beside.filter((one) => (one === component ? on : gets(one))).map(({ id }) => id) })
              }
            />
          ))}
        </View>
      ) : null}
      {part.additions.map((line) => (
        <View key={line.id} style={[styles.addition, { borderBottomColor: colours.rule }]}>
          <Body style={styles.grow}>
            {nameOf(line)}, {lineMass(line)}
          </Body>
          <Press
            onPress={() => edit({ edit: "remove-from-part", partId, lineId: line.id })}
            label={`Remove ${nameOf(line)} from ${part.name}`}
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
        onAdd={(line) => edit({ edit: "add-to-part", partId, line })}
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
        <Small tone="faint">It is baked when it weighs something.</Small>
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
  gets: { flexDirection: "row", flexWrap: "wrap", alignItems: "center", columnGap: space.m },
  addition: { flexDirection: "row", alignItems: "center", borderBottomWidth: 1 },
});
