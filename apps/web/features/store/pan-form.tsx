import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { VesselInput } from "@uprise/contract";
import type { OwnShape, Vessel } from "@uprise/core";
import { fillVessel, ownShapes, vesselOfShape } from "@uprise/core/page-bench";
import { materials } from "@uprise/core/page";
import { useRef } from "react";
import { useForm, useWatch } from "react-hook-form";
import { StyleSheet, View } from "react-native";
import { space } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { FormChoice, FormNumber, FormText } from "../../ui/form";
import { Button } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";
import { byContract } from "./by-contract";

const shapeName: Record<OwnShape, string> = { rectangular: "Box", round: "Round", ring: "Ring", muffin: "Cups" };
const words = (value: string): string => value.replace(/-/g, " ").replace(/^./, (c) => c.toUpperCase());
const wide = { unit: "mm", least: 10, most: 900 } as const;

/** One's own pan, by a ruler or by the water it holds. */
export function PanForm({ onDone }: { onDone: () => void }) {
  const queries = useQueryClient();
  const id = useRef(newId());
  const { control, handleSubmit, setValue } = useForm<VesselInput>({
    resolver: byContract("ownPanSchema"),
    defaultValues: { name: "", vessel: { shape: "rectangular", material: "light-metal", lining: "greased" } },
  });
  const vessel = useWatch({ control, name: "vessel" }) as Vessel;
  const create = useMutation({
    mutationFn: (sent: VesselInput) => wire.createVessel({ ...sent, id: id.current }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: keys.vessels.all });
      onDone();
    },
  });
  const cups = vessel.shape === "muffin";
  const round = vessel.shape !== "rectangular";
  return (
    <View style={styles.form} role="group" aria-label="A pan of your own">
      <Heading>A pan of your own</Heading>
      <FormText control={control} name="name" label="Its name" />
      <Choice
        titled
        label="Shape"
        options={ownShapes.map((value) => ({ value, label: shapeName[value] }))}
        value={vessel.shape as OwnShape}
        onChange={(shape) => setValue("vessel", vesselOfShape(vessel, shape))}
      />
      <View style={styles.fields}>
        {round ? (
          <FormNumber
            key="diameter"
            control={control}
            name="vessel.diameterMm"
            label={cups ? "Across a cup's rim" : "Across the rim"}
            {...wide}
            style={styles.field}
          />
        ) : (
          <>
            <FormNumber control={control} name="vessel.lengthMm" label="Length at the rim" {...wide} style={styles.field} />
            <FormNumber control={control} name="vessel.widthMm" label="Width at the rim" {...wide} style={styles.field} />
          </>
        )}
        <FormNumber
          control={control}
          name="vessel.heightMm"
          label="Height inside"
          unit="mm"
          least={5}
          most={300}
          style={styles.field}
        />
        {round ? (
          <FormNumber
            key="base"
            control={control}
            name="vessel.baseDiameterMm"
            label="Across the base"
            {...wide}
            style={styles.field}
          />
        ) : (
          <>
            <FormNumber control={control} name="vessel.baseLengthMm" label="Length at the base" {...wide} style={styles.field} />
            <FormNumber control={control} name="vessel.baseWidthMm" label="Width at the base" {...wide} style={styles.field} />
          </>
        )}
        {cups ? (
          <FormNumber
            control={control}
            name="vessel.pieces"
            label="How many cups"
            unit=""
            least={1}
            most={200}
            whole
            style={styles.field}
          />
        ) : null}
        <FormNumber
          control={control}
          name="vessel.capacityMl"
          label={cups ? "Water a cup holds" : "Water it holds"}
          unit="mL"
          least={5}
          most={50_000}
          style={styles.field}
        />
      </View>
      <Small tone="faint">
        Measure inside; “23 cm” and “9 in” are read too. If the walls lean, give the base as well, or fill it with water on a scale:
        the lean is found from that.
      </Small>
      <FormChoice
        control={control}
        name="vessel.material"
        label="Made of"
        options={materials.map((value) => ({ value, label: words(value) }))}
      />
      <Body>{holds(vessel)}</Body>
      {create.error ? <Body tone="stop">{create.error.message}</Body> : null}
      <View style={styles.fields}>
        <Button kind="main" disabled={create.isPending} onPress={() => void handleSubmit((sent) => create.mutate(sent))()}>
          Keep this pan
        </Button>
        <Button kind="quiet" onPress={onDone}>
          Leave it
        </Button>
      </View>
    </View>
  );
}

/** What the pan would hold, as soon as that can be said. */
function holds(vessel: Vessel): string {
  try {
    const { capacityMl, pieces } = fillVessel(vessel, 100, 1);
    const each = Math.round(capacityMl / pieces);
    if (!Number.isFinite(each)) throw new Error("open");
    return vessel.shape === "muffin"
      ? `A cup holds ${each} mL, ${pieces} of them ${Math.round(capacityMl)} mL.`
      : `It holds ${each} mL to the rim.`;
  } catch {
    return "What it holds stands here as soon as the measures are there.";
  }
}

const styles = StyleSheet.create({
  form: { padding: space.m, gap: space.m },
  fields: { flexDirection: "row", flexWrap: "wrap", gap: space.m },
  field: { width: 160 },
});
