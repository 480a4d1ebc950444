import type { CSSProperties } from "react";
import type { Colours } from "../theme/colours";
import { fonts, space, touch, type } from "../theme/scale";

export interface Named {
  id: string;
  name: string;
  aliases: readonly string[];
}

export interface SearchProps<T extends Named> {
  label: string;
  query: string;
  onQuery: (query: string) => void;
  found: readonly T[];
  onPick: (item: T) => void;
  nothing?: string;
  placeholder?: string;
  /** Enter with nothing marked. */
  onSubmit?: () => void;
}

export const labelStyle = ({ faint }: Colours): CSSProperties => ({
  color: faint,
  fontFamily: fonts.body,
  fontSize: type.small.fontSize,
});
export const inputStyle = ({ ink, sunk, strongRule, focus }: Colours): CSSProperties => ({
  fontFamily: fonts.body,
  fontSize: type.body.fontSize,
  minHeight: touch.least,
  padding: `0 ${space.s}px`,
  border: "none",
  borderRadius: 0,
  width: "100%",
  boxSizing: "border-box",
  color: ink,
  backgroundColor: sunk,
  borderBottom: `1.5px solid ${strongRule}`,
  outlineColor: focus,
});

let focused: string | null = null;
/** Remembers which plain field the keyboard is on, for what takes its place. */
export const leaveFocus = (label: string | null): void => {
  focused = label;
};
export function takeFocus(label: string): boolean {
  const was = focused === label;
  if (was) focused = null;
  return was;
}
