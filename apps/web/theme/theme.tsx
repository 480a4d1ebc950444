import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from "react";
import { useColorScheme, useWindowDimensions } from "react-native";
import { readDevice, writeDevice } from "../device/local";
import { type Colours, dark, light, paper } from "./colours";
import { wideFrom } from "./scale";

export const schemes = ["system", "light", "dark"] as const;
export type Scheme = (typeof schemes)[number];

interface Theme {
  colours: Colours;
  isDark: boolean;
  scheme: Scheme;
  setScheme: (scheme: Scheme) => void;
}

const ThemeContext = createContext<Theme | null>(null);

export function ThemeProvider({ children }: { children: ReactNode }) {
  const system = useColorScheme();
  const [scheme, setScheme] = useState<Scheme>(() => {
    const kept = readDevice("scheme");
    return schemes.find((s) => s === kept) ?? "system";
  });
  const isDark = scheme === "system" ? system === "dark" : scheme === "dark";
  useEffect(() => {
    // Scroll bars, fields and the page behind follow the scheme too.
    document.documentElement.style.colorScheme = isDark ? "dark" : "light";
    document.body.style.backgroundColor = (isDark ? dark : light).paper;
  }, [isDark]);
  const theme = useMemo(
    () => ({
      colours: isDark ? dark : light,
      isDark,
      scheme,
      setScheme: (next: Scheme) => {
        writeDevice("scheme", next);
        setScheme(next);
      },
    }),
    [isDark, scheme],
  );
  return <ThemeContext.Provider value={theme}>{children}</ThemeContext.Provider>;
}

export function useTheme(): Theme {
  const theme = useContext(ThemeContext);
  if (!theme) throw new Error("useTheme stands outside of ThemeProvider");
  return theme;
}

export const useColours = (): Colours => useTheme().colours;

/** Ink on white, whatever the scheme: for what goes on paper. */
export function PaperTheme({ children }: { children: ReactNode }) {
  const theme = useTheme();
  const onPaper = useMemo(() => ({ ...theme, colours: paper, isDark: false }), [theme]);
  return <ThemeContext.Provider value={onPaper}>{children}</ThemeContext.Provider>;
}

export const useWide = (): boolean => useWindowDimensions().width >= wideFrom;
