import { zodResolver } from "@hookform/resolvers/zod";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { fillVessel, linings, materials, type Vessel, vesselSchema } from "@uprise/core";
import { Controller, useForm, useWatch } from "react-hook-form";
import { StyleSheet, View } from "react-native";
import { z } from "zod";
import { space } from "../../theme/scale";
import { Choice } from "../../ui/choice";
import { Field } from "../../ui/field";
import { Button } from "../../ui/press";
import { Body, Heading, Small } from "../../ui/words";
import { wire } from "../wire/client";

const ownShapes = ["rectangular", "round", "ring", "muffin"] as const;
const shapeName: Record<(typeof ownShapes)[number], string> = {
  rectangular: "Box",
  round: "Round",
  ring: "Ring",
  muffin: "Cups",
};

const millimetres = z
  .string()
  .trim()
  .refine((text) => text === "" || (Number(text.replace(",", ".")) >= 10 && Number(text.replace(",", ".")) <= 900), {
    error: "Millimetres inside, from 10 to 900; 23 cm is 230.",
  });

const formSchema = z
  .object({
    name: z.string().trim().min(2, { error: "A name by which you know it." }).max(120),
    shape: z.enum(ownShapes),
    length: millimetres,
    width: millimetres,
    height: millimetres,
    baseLength: millimetres,
    baseWidth: millimetres,
    cups: z
      .string()
      .trim()
      .refine((text) => text === "" || (Number.isInteger(Number(text)) && Number(text) >= 1 && Number(text) <= 200), {
        error: "How many cups, from 1 to 200.",
      }),
    water: z
      .string()
      .trim()
      .refine((text) => text === "" || (Number(text.replace(",", ".")) >= 5 && Number(text.replace(",", ".")) <= 50_000), {
        error: "Millilitres of water to the rim, from 5 to 50 000; a gram is a millilitre.",
      }),
    material: z.enum(materials),
    lining: z.enum(linings),
  })
  .superRefine((form, context) => {
    const wants = (path: "length" | "height", message: string): void => context.addIssue({ code: "custom", path: [path], message });
    if (form.length === "") wants("length", "Measure it inside, in millimetres; 23 cm is 230.");
    if (form.height === "") wants("height", "Measure the height inside, in millimetres; 7 cm is 70.");
  });
type Form = z.infer<typeof formSchema>;

const number = (text: string): number | undefined => (text.trim() === "" ? undefined : Number(text.replace(",", ".")));

/** The vessel that a form describes, without what was left open. */
export function vesselFrom(form: Form): Vessel {
  const { shape, material, lining } = form;
  const round = shape !== "rectangular";
  const measured = {
    ...(round ? { diameterMm: number(form.length) } : { lengthMm: number(form.length), widthMm: number(form.width) }),
    heightMm: number(form.height),
    ...(round
      ? { baseDiameterMm: number(form.baseLength) }
      : { baseLengthMm: number(form.baseLength), baseWidthMm: number(form.baseWidth) }),
    ...(shape === "muffin" ? { pieces: number(form.cups) ?? 12 } : {}),
    capacityMl: number(form.water),
  };
  const known = Object.fromEntries(Object.entries(measured).filter(([, value]) => value !== undefined));
  return vesselSchema.parse({ shape, material, lining, ...known });
}

const words = (value: string): string => value.replace(/-/g, " ").replace(/^./, (c) => c.toUpperCase());

/** One's own pan, by a ruler or by the water it holds. */
export function PanForm({ onDone }: { onDone: () => void }) {
  const queries = useQueryClient();
  const { control, handleSubmit } = useForm<Form>({
    resolver: zodResolver(formSchema),
    defaultValues: {
      name: "",
      shape: "rectangular",
      length: "",
      width: "",
      height: "",
      baseLength: "",
      baseWidth: "",
      cups: "",
      water: "",
      material: "light-metal",
      lining: "greased",
    },
  });
  const form = useWatch({ control }) as Form;
  const create = useMutation({
    mutationFn: (sent: Form) => wire.createVessel({ name: sent.name, vessel: vesselFrom(sent) }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["vessels"] });
      onDone();
    },
  });
  const round = form.shape !== "rectangular";
  const text = (
    name: "name" | "length" | "width" | "height" | "baseLength" | "baseWidth" | "cups" | "water",
    label: string,
    unit?: string,
  ) => (
    <Controller
      key={name}
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <Field
          label={label}
          value={field.value}
          onChange={field.onChange}
          onBlur={field.onBlur}
          error={fieldState.error?.message}
          {...(unit === undefined ? {} : { keyboard: "numeric" as const, suffix: <Small tone="faint">{unit}</Small> })}
          style={name === "name" ? null : styles.field}
        />
      )}
    />
  );
  return (
    <View style={styles.form}>
      <Heading>A pan of your own</Heading>
      {text("name", "Its name")}
      <Controller
        control={control}
        name="shape"
        render={({ field }) => (
          <Choice
            label="Shape"
            options={ownShapes.map((value) => ({ value, label: shapeName[value] }))}
            value={field.value}
            onChange={field.onChange}
          />
        )}
      />
      <View style={styles.fields}>
        {text("length", round ? "Across at the rim" : "Length at the rim", "mm")}
        {round ? null : text("width", "Width at the rim", "mm")}
        {text("height", "Height inside", "mm")}
        {text("baseLength", round ? "Across at the base" : "Length at the base", "mm")}
        {round ? null : text("baseWidth", "Width at the base", "mm")}
        {form.shape === "muffin" ? text("cups", "How many cups", "") : null}
        {text("water", form.shape === "muffin" ? "Water a cup holds" : "Water it holds", "mL")}
      </View>
      <Small tone="faint">
        Measure inside. If the walls lean, give the base too, or fill it with water on a scale: the lean is found from that.
      </Small>
      <Controller
        control={control}
        name="material"
        render={({ field }) => (
          <Choice
            label="Made of"
            options={materials.map((value) => ({ value, label: words(value) }))}
            value={field.value}
            onChange={field.onChange}
          />
        )}
      />
      <Body>{holds(form)}</Body>
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
function holds(form: Form): string {
  try {
    const { capacityMl, pieces } = fillVessel(vesselFrom(form), 100, 1);
    const each = Math.round(capacityMl / pieces);
    return form.shape === "muffin"
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
