import type { NumberUnit } from "@uprise/core";
import { type Control, Controller, type FieldPath, type FieldValues } from "react-hook-form";
import type { StyleProp, ViewStyle } from "react-native";
import { Choice } from "./choice";
import { Field } from "./field";
import { NumberField } from "./number-field";

/** Fields of a form: their values live in react-hook-form, their limits in the contract's schema, and what is wrong stands under each. */
interface Common<V extends FieldValues> {
  control: Control<V>;
  name: FieldPath<V>;
  label: string;
  style?: StyleProp<ViewStyle>;
}

export function FormText<V extends FieldValues>({ control, name, label, style }: Common<V>) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <Field
          label={label}
          value={(field.value as string | undefined) ?? ""}
          onChange={field.onChange}
          onBlur={field.onBlur}
          error={fieldState.error?.message}
          style={style}
        />
      )}
    />
  );
}

interface FormNumberProps<V extends FieldValues> extends Common<V> {
  unit: NumberUnit;
  least: number;
  most: number;
  whole?: boolean;
}

/** A number that may be left open; what cannot be read is no number, and the form then does not pass. */
export function FormNumber<V extends FieldValues>({ control, name, label, style, ...limits }: FormNumberProps<V>) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <NumberField
          label={label}
          value={field.value as number | undefined}
          optional
          {...limits}
          onChange={(value) => field.onChange(value)}
          onUnreadable={() => field.onChange(Number.NaN)}
          onBlur={field.onBlur}
          error={fieldState.error?.message}
          style={style}
        />
      )}
    />
  );
}

export function FormChoice<V extends FieldValues, T extends string>({
  control,
  name,
  label,
  options,
}: Common<V> & { options: readonly { value: T; label: string }[] }) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => <Choice label={label} options={options} value={field.value as T} onChange={field.onChange} />}
    />
  );
}
