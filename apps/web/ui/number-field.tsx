import type { NumberUnit } from "@uprise/core";
import { fahrenheitFromCelsius, readNumber } from "@uprise/core/page";
import { useState } from "react";
import type { StyleProp, ViewStyle } from "react-native";
import { Field } from "./field";
import { Small } from "./words";

interface NumberFieldProps {
  label: string;
  /** Undefined where the field may be left open and is. */
  value: number | undefined;
  unit: NumberUnit;
  least: number;
  most: number;
  /** Whole numbers only. */
  whole?: boolean;
  /** May be left empty. */
  optional?: boolean;
  /** `fahrenheit` when the number was said in °F. `undefined` when an optional field was emptied. */
  onChange: (value: number | undefined, fahrenheit: boolean) => void;
  /** What was typed is no such number; a form then holds none. */
  onUnreadable?: () => void;
  onBlur?: () => void;
  /** What else is wrong with it. */
  error?: string | undefined;
  /** The dial is in °F: it is shown so, and a bare number is one. */
  fahrenheit?: boolean;
  style?: StyleProp<ViewStyle>;
}

const figure = (value: number): string => String(Math.round(value * 10) / 10);

/** A number with its unit: commas, fractions and other units are read; outside of what makes sense it says what would be right. */
export function NumberField({
  label,
  value,
  unit,
  least,
  most,
  whole = false,
  optional = false,
  onChange,
  onUnreadable,
  onBlur,
  error,
  fahrenheit = false,
  style,
}: NumberFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const judge = (text: string): { value: number; fahrenheit: boolean } | null => {
    const read = readNumber(fahrenheit && !/[a-z°]/i.test(text) ? `${text} F` : text, unit);
    const fits = read !== null && read.value >= least && read.value <= most && (!whole || Number.isInteger(read.value));
    return fits ? { value: read.value, fahrenheit: read.fahrenheit === true } : null;
  };
  const empty = optional && typed?.trim() === "";
  const fits = typed === null || empty || judge(typed) !== null;
  const dial = fahrenheit ? "°F" : unit;
  const toDial = (of: number): number => (fahrenheit ? Math.round(fahrenheitFromCelsius(of)) : of);
  const right = `From ${toDial(least)} to ${toDial(most)}${dial === "" ? "" : ` ${dial}`}${whole ? ", a whole number," : ""} would be right.`;
  return (
    <Field
      label={label}
      value={typed ?? (value === undefined || Number.isNaN(value) ? "" : figure(toDial(value)))}
      keyboard="decimal-pad"
      error={fits ? error : right}
      onChange={(text) => {
        setTyped(text);
        if (optional && text.trim() === "") return onChange(undefined, false);
        const next = judge(text);
        if (next) onChange(next.value, next.fahrenheit);
        else onUnreadable?.();
      }}
      onBlur={() => {
        if (fits) setTyped(null);
        onBlur?.();
      }}
      suffix={<Small tone="faint">{dial}</Small>}
      style={style}
    />
  );
}
