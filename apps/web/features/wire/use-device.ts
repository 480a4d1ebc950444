import { useQuery } from "@tanstack/react-query";
import type { DeviceMessage } from "@uprise/contract";
import { useEffect, useState } from "react";
import { wire } from "./client";
import { keys } from "./keys";

export const useDevices = () =>
  useQuery({ queryKey: keys.devices.all, queryFn: ({ signal }) => wire.devices(signal), staleTime: 30_000 });

/** Silent for so long, a device is told to be silent; a line that broke is tried again after so long, ms. */
const SILENT_MS = 6000;
const AGAIN_MS = 2000;

export interface Device {
  /** What it shows; null before its first word. */
  message: DeviceMessage | null;
  silent: boolean;
}

/** What a device shows, over its line. What is no message is not listened to; a line that breaks is opened again. */
export function useDevice(id: string | null): Device {
  const [heard, setHeard] = useState<{ of: string; message: DeviceMessage } | null>(null);
  const [silent, setSilent] = useState<string | null>(null);
  useEffect(() => {
    if (id === null || typeof WebSocket === "undefined") return;
    let socket: WebSocket | null = null;
    let again: ReturnType<typeof setTimeout> | undefined;
    let quiet = setTimeout(() => setSilent(id), SILENT_MS);
    const open = (): void => {
      const { protocol, host } = globalThis.location;
      socket = new WebSocket(`${protocol === "https:" ? "wss" : "ws"}://${host}/api/devices/${encodeURIComponent(id)}/stream`);
      socket.onmessage = (event: MessageEvent<string>) => {
        const message = messageFrom(event.data);
        if (!message) return;
        setHeard({ of: id, message });
        setSilent(null);
        clearTimeout(quiet);
        quiet = setTimeout(() => setSilent(id), SILENT_MS);
      };
      socket.onclose = () => {
        again = setTimeout(open, AGAIN_MS);
      };
    };
    open();
    return () => {
      clearTimeout(quiet);
      clearTimeout(again);
      if (!socket) return;
      socket.onclose = null;
      socket.close();
    };
  }, [id]);
  return { message: heard?.of === id ? heard.message : null, silent: id !== null && silent === id };
}

function messageFrom(line: string): DeviceMessage | null {
  try {
    const message = JSON.parse(line) as Partial<DeviceMessage> | null;
    // The hub has checked it; one that names no value shows nothing.
    return typeof message?.value === "number" && typeof message.unit === "string" ? (message as DeviceMessage) : null;
  } catch {
    // Not JSON: the device is faulty, the bake goes on.
    return null;
  }
}
