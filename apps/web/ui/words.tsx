import type { ReactNode } from "react";
import { type Role, type StyleProp, Text, type TextStyle } from "react-native";
import type { Colours } from "../theme/colours";
import { fonts, type } from "../theme/scale";
import { useColours } from "../theme/theme";

interface WordsProps {
  children: ReactNode;
  tone?: keyof Colours;
  strong?: boolean;
  style?: StyleProp<TextStyle>;
  lines?: number;
  role?: Role;
  level?: 1 | 2 | 3;
  id?: string;
  live?: "polite" | "assertive";
}

const make = (size: keyof typeof type, family: string, defaultLevel?: 1 | 2) =>
  function Words({ children, tone = "ink", strong = false, style, lines, role, level = defaultLevel ?? 2, id, live }: WordsProps) {
    const colours = useColours();
    const heading = defaultLevel !== undefined;
    return (
      <Text
        style={[type[size], { fontFamily: strong ? fonts.strong : family, color: colours[tone] }, style]}
        {...(lines ? { numberOfLines: lines } : {})}
        {...(heading ? { role: "heading" as const, "aria-level": level } : role ? { role } : {})}
        {...(id ? { nativeID: id } : {})}
        {...(live ? { "aria-live": live } : {})}
      >
        {children}
      </Text>
    );
  };

export const Title = make("title", fonts.display, 1);
export const Heading = make("heading", fonts.display, 2);
export const Lead = make("lead", fonts.body);
export const Body = make("body", fonts.body);
export const Small = make("small", fonts.body);
/** Figures in columns: tabular digits. */
const FigureWords = make("figure", fonts.display);
export const Figure = (props: WordsProps) => <FigureWords {...props} style={[{ fontVariant: ["tabular-nums"] }, props.style]} />;
