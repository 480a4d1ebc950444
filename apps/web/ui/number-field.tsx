import { useState } from "react";
import type { StyleProp, ViewStyle } from "react-native";
import { Field } from "./field";
import { Small } from "./words";

interface NumberFieldProps {
  label: string;
  value: number;
  unit: string;
  least: number;
  most: number;
  onChange: (value: number) => void;
  style?: StyleProp<ViewStyle>;
}

/** A number with its unit; outside of what makes sense it says what would be right and changes nothing. */
export function NumberField({ label, value, unit, least, most, onChange, style }: NumberFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const read = typed === null ? value : Number(typed.replace(",", "."));
  const fits = Number.isFinite(read) && typed?.trim() !== "" && read >= least && read <= most;
  return (
    <Field
      label={label}
      value={typed ?? String(Math.round(value * 10) / 10)}
      keyboard="numeric"
      error={fits ? undefined : `From ${least} to ${most} ${unit} would be right.`}
      onChange={(text) => {
        setTyped(text);
        const next = Number(text.replace(",", "."));
        if (text.trim() !== "" && Number.isFinite(next) && next >= least && next <= most) onChange(next);
      }}
      onBlur={() => {
        if (fits) setTyped(null);
      }}
      suffix={<Small tone="faint">{unit}</Small>}
      style={style}
    />
  );
}
