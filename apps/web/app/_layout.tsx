import "../doors/ahead";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { Slot } from "expo-router";
import { SafeAreaProvider } from "react-native-safe-area-context";
import { Gate } from "../features/access/gate";
import { Suspense, useEffect } from "react";
import { Arrived, fetchAhead, Meanwhile } from "../doors/screens";
import { keepAnswersOf } from "../features/wire/kept";
import { Shell } from "../features/shell/shell";
import { ThemeProvider } from "../theme/theme";
import { Guard } from "../ui/guard";

const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: 1, refetchOnWindowFocus: false, staleTime: 5_000, networkMode: "always" },
    // A write with the network gone is told at once, not silently held back.
    mutations: { networkMode: "always" },
  },
});

export { Meanwhile as SuspenseFallback };

export default function Layout() {
  useEffect(() => keepAnswersOf(queries), []);
  useEffect(fetchAhead, []);
  return (
    <SafeAreaProvider>
      <QueryClientProvider client={queries}>
        <ThemeProvider>
          <Guard what="Uprise">
            <Gate>
              <Shell>
                <Suspense fallback={<Meanwhile />}>
                  <Slot />
                  <Arrived />
                </Suspense>
              </Shell>
            </Gate>
          </Guard>
        </ThemeProvider>
      </QueryClientProvider>
    </SafeAreaProvider>
  );
}
