import type { ComponentMass, Edit, FormulaComponent, ComponentRole } from "@uprise/core";
import { componentPlaces, gramsText, placeOf } from "@uprise/core/page";
import ChevronDown from "lucide-react-native/icons/chevron-down";
import ChevronRight from "lucide-react-native/icons/chevron-right";
import { useState } from "react";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { useColours } from "../../theme/theme";
import { Choice } from "../../ui/choice";
import { Field } from "../../ui/field";
import { focusSoon } from "../../ui/focus";
import { NumberField } from "../../ui/number-field";
import { Button, Press } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import { massText, placeWord, roleWord, whereText } from "../instruments/component-words";

const roles = (["filling", "topping", "glaze", "paste", "soaker", "sauce", "serve", "pan"] as const).map((value) => ({
  value,
  label: roleWord[value],
}));
const places = componentPlaces.map((value) => ({ value, label: placeWord[value] }));

interface ComponentHeadProps {
  /** Null for the batter. */
  component: FormulaComponent | null;
  mass: ComponentMass | undefined;
  lines: number;
  folded: boolean;
  onFold: () => void;
  edit: (edit: Edit) => void;
  fault?: string | undefined;
}

/** The heading of a component: its name, where it is in the bake, what it weighs; it folds, and can be set up. */
export function ComponentHead({ component, mass, lines, folded, onFold, edit, fault }: ComponentHeadProps) {
  const colours = useColours();
  const [setting, setSetting] = useState(false);
  const name = component?.name ?? "Batter";
  const Chevron = folded ? ChevronRight : ChevronDown;
  return (
    <View style={[styles.head, { borderBottomColor: colours.strongRule }]}>
      <View style={styles.row}>
        <Press onPress={onFold} aria-expanded={!folded} label={`${name}, ${folded ? "unfold" : "fold"}`} style={styles.fold}>
          <View style={styles.name}>
            <Chevron size={20} color={colours.ink} strokeWidth={2.2} />
            <Heading level={3}>{name}</Heading>
          </View>
        </Press>
        <View style={styles.mass}>
          <Body strong style={styles.figure}>
            {mass ? massText(mass) : gramsText(0)}
          </Body>
        </View>
      </View>
      <View style={styles.row}>
        <Small tone="faint" style={styles.where}>
          {component ? whereText(placeOf(component), component.role) : "what rises: lift, body and fill are of this alone"}
          {component?.celsius === undefined ? "" : `, at ${Math.round(component.celsius)} °C`}
          {folded && lines > 0 ? `, ${lines} ${lines === 1 ? "line" : "lines"}` : ""}
        </Small>
        {component ? (
          <Press onPress={() => setSetting(!setting)} aria-expanded={setting} label={`Set up ${name}`} style={styles.setUp}>
            <Small style={styles.underlined}>{setting ? "Close" : "Set up"}</Small>
          </Press>
        ) : null}
      </View>
      {component && setting ? (
        <Setting component={component} lines={lines} edit={edit} fault={fault} onGone={() => setSetting(false)} />
      ) : null}
    </View>
  );
}

function Setting({
  component,
  lines,
  edit,
  fault,
  onGone,
}: {
  component: FormulaComponent;
  lines: number;
  edit: (edit: Edit) => void;
  fault: string | undefined;
  onGone: () => void;
}) {
  const componentId = component.id;
  const place = placeOf(component);
  const set = (fields: Partial<Omit<FormulaComponent, "id">>, clear?: string[]): void =>
    edit({ edit: "set-component", componentId, set: fields, ...(clear ? { clear } : {}) });
  return (
    <View style={styles.setting}>
      <Field label="Called" value={component.name} error={fault} onChange={(name) => set({ name })} />
      <Small tone="faint">It is</Small>
      <Choice
        label={`What ${component.name} is`}
        options={roles}
        value={component.role}
        // Another role has another usual place.
        onChange={(role: ComponentRole) => set({ role }, ["place"])}
      />
      {place === "batter" ? null : (
        <>
          <Small tone="faint">In the bake</Small>
          <Choice
            label={`Where ${component.name} is in the bake`}
            options={places}
            value={place}
            onChange={(next) => set({ place: next })}
          />
        </>
      )}
      {place === "batter" || place === "apart" ? null : (
        <View style={styles.fields}>
          <NumberField
            label="Once cooked, if it is"
            unit="g"
            least={1}
            most={1_000_000}
            optional
            value={component.cookedG}
            onChange={(cookedG) => (cookedG === undefined ? set({}, ["cookedG"]) : set({ cookedG }))}
            style={styles.field}
          />
          {place === "after" ? null : (
            <NumberField
              label="How warm it goes in"
              unit="°C"
              least={-25}
              most={110}
              optional
              value={component.celsius}
              onChange={(celsius) => (celsius === undefined ? set({}, ["celsius"]) : set({ celsius }))}
              style={styles.field}
            />
          )}
        </View>
      )}
      <Button
        kind="quiet"
        onPress={() => {
          onGone();
          edit({ edit: "remove-component", componentId });
          focusSoon("[data-testid=add-component]");
        }}
      >
        {lines === 0 ? `Remove ${component.name}` : `Remove ${component.name} with its ${lines} ${lines === 1 ? "line" : "lines"}`}
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({
  head: { borderBottomWidth: 1.5, paddingTop: space.m },
  row: { flexDirection: "row", alignItems: "center", gap: space.s },
  fold: { flex: 1, minWidth: 0 },
  name: { flexDirection: "row", alignItems: "center", gap: space.xs },
  mass: { alignItems: "flex-end" },
  figure: { fontVariant: ["tabular-nums"] },
  where: { flex: 1, minWidth: 0, paddingLeft: 24, paddingBottom: space.xs },
  setUp: { alignItems: "flex-end" },
  underlined: { textDecorationLine: "underline" },
  setting: { gap: space.s, paddingLeft: 24, paddingBottom: space.m },
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 160 },
});
