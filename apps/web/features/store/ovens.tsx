import { useMutation, useQueryClient } from "@tanstack/react-query";
import type { OvenProfile, StoredOven } from "@uprise/contract";
import { useRef, useState } from "react";
import { Failed, Loading } from "../../ui/state";
import { newId, wire } from "../wire/client";
import { keys } from "../wire/keys";
import { useOvenList } from "../wire/queries";
import { OvenForm } from "./oven-form";
import { OwnShelf } from "./own-shelf";
import { useTakeOff } from "./use-shelf-writes";

const fresh: OvenProfile = { name: "", modes: ["still", "fan"], biasK: 0, swingK: 6 };

/** An oven in a sentence. */
export function ovenSentence({ biasK, swingK, modes, warmMinutes, racks }: OvenProfile): string {
  const off = biasK === 0 ? "True to its dial" : `${Math.abs(biasK)} °C ${biasK > 0 ? "hotter" : "cooler"} than its dial`;
  return [
    `${off}, swings by ${swingK} °C`,
    modes.includes("fan") ? "with a fan" : "without a fan",
    warmMinutes === undefined ? null : `${warmMinutes} min to 180 °C`,
    racks === undefined ? null : `${racks} racks`,
  ]
    .filter((part) => part !== null)
    .join("; ");
}

/** The ovens of this kitchen: how far each is off, how it swings, how it warms up, and what fits. */
export function Ovens() {
  const queries = useQueryClient();
  const { ovens, error, refetch } = useOvenList();
  const off = useTakeOff(keys.ovens.all);
  const id = useRef(newId());
  const [open, setOpen] = useState<string | null>(null);
  const save = useMutation({
    mutationFn: ({ stored, oven }: { stored: StoredOven | null; oven: OvenProfile }) =>
      stored ? wire.changeOven(stored.id, stored.version, oven) : wire.createOven(id.current, oven),
    onSuccess: async () => {
      id.current = newId();
      await queries.invalidateQueries({ queryKey: keys.ovens.all });
      setOpen(null);
    },
  });
  if (error && !ovens) return <Failed title="The ovens did not come." detail={error.message} onRetry={() => void refetch()} />;
  if (!ovens) return <Loading what="Fetching the ovens" />;
  const form = (stored: StoredOven | null) => (
    <OvenForm
      start={stored?.oven ?? fresh}
      fault={save.error?.message ?? null}
      busy={save.isPending}
      onKeep={(oven) => save.mutate({ stored, oven })}
      onLeave={() => {
        save.reset();
        setOpen(null);
      }}
    />
  );
  return (
    <OwnShelf
      items={ovens}
      what="oven"
      name={(stored) => stored.oven.name}
      sentence={(stored) => ovenSentence(stored.oven)}
      open={open}
      onOpen={(id) => {
        save.reset();
        setOpen(id);
      }}
      form={form}
      off={off}
      onRemove={(stored) => {
        setOpen(null);
        off.takeOff({ name: stored.oven.name, back: () => wire.createOven(stored.id, stored.oven) }, () =>
          wire.removeOven(stored.id, stored.version),
        );
      }}
    />
  );
}
