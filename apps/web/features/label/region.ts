import type { Packet, RegionId } from "@uprise/core";
import { currencyOf } from "@uprise/core/page-live";
import { regionIds, regions } from "@uprise/core/page-bench";
import { useState } from "react";
import { readDevice, writeDevice } from "../../device/local";

const KEPT = "label-region";

/** For whose law labels are made on this device: the one chosen last, else by the language of the browser. */
export function useRegion(): [RegionId, (region: RegionId) => void] {
  const [region, setRegion] = useState<RegionId>(() => {
    const kept = regionIds.find((id) => id === readDevice(KEPT));
    if (kept) return kept;
    const country = /-([A-Z]{2})\b/.exec(globalThis.navigator?.language ?? "")?.[1];
    const near: Record<string, RegionId> = { GB: "uk", US: "us", CA: "ca", AU: "au", NZ: "au" };
    return near[country ?? ""] ?? "eu";
  });
  return [
    region,
    (next) => {
      writeDevice(KEPT, next);
      setRegion(next);
    },
  ];
}

/** The money of each region, where no price of the kitchen says another. */
const moneyOf: Record<RegionId, string> = { eu: "EUR", uk: "GBP", us: "USD", ca: "CAD", au: "AUD" };
export const useCurrency = (packets: readonly Packet[]): string => currencyOf(packets, moneyOf[useRegion()[0]]);

export const regionOptions = regionIds.map((value) => ({ value, label: regions[value].name }));
