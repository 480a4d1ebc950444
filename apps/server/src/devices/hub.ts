import { EventEmitter } from "node:events";
import { type DeviceCommand, type DeviceInput, type DeviceMessage, deviceMessageSchema } from "@uprise/contract";
import { type Played, type PlayedBake, playedOven, playedPh, playedProbe, playedScale } from "./played";

/** A device speaks so often, ms; more than so many messages a second are not listened to. */
const EVERY_MS = 400;
const MOST_A_SECOND = 10;

interface Paired {
  kind: DeviceInput["kind"];
  played: Played | null;
  fault: "none" | "silent" | "nonsense" | "flood";
  bakeId: string | null;
  last: DeviceMessage | null;
  dropped: number;
  heard: number[];
}

const plays: Record<DeviceInput["kind"], (random: () => number) => Played> = {
  scale: playedScale,
  probe: playedProbe,
  oven: playedOven,
  ph: playedPh,
};

/** All devices of the kitchen: those that are played here and those whose bridge speaks. What is no message, or too much, is dropped and counted. */
export class DeviceHub {
  private readonly devices = new Map<string, Paired>();
  private readonly news = new EventEmitter().setMaxListeners(0);
  private timer: NodeJS.Timeout | null = null;

  constructor(
    private readonly bakeOf: (id: string) => Promise<PlayedBake | null>,
    private readonly random: () => number = Math.random,
  ) {}

  pair(id: string, { kind, simulated }: Pick<DeviceInput, "kind" | "simulated">): void {
    if (this.devices.has(id)) return;
    const played = simulated ? plays[kind](this.random) : null;
    this.devices.set(id, { kind, played, fault: "none", bakeId: null, last: null, dropped: 0, heard: [] });
  }

  unplug(id: string): void {
    this.devices.delete(id);
    this.news.emit(`end:${id}`);
  }

  state(id: string): { last: DeviceMessage | null; dropped: number } {
    const { last = null, dropped = 0 } = this.devices.get(id) ?? {};
    return { last, dropped };
  }

  /** False where a device cannot be told anything: its bridge takes no commands. */
  tell(id: string, command: DeviceCommand): boolean {
    const device = this.devices.get(id);
    if (!device?.played) return false;
    if (command.command === "rehearse") {
      if (command.fault !== undefined) device.fault = command.fault;
      if (command.bakeId !== undefined) device.bakeId = command.bakeId;
    }
    device.played.tell(command);
    return true;
  }

  /** Whatever came down a line of a device, text or object. True where it was a message that counts. */
  hear(id: string, sent: unknown, now = Date.now()): boolean {
    const device = this.devices.get(id);
    if (!device) return false;
    let json: unknown = sent;
    if (typeof sent === "string") {
      try {
        json = JSON.parse(sent);
      } catch {
        json = null;
      }
    }
    const parsed = deviceMessageSchema.safeParse(json);
    device.heard = device.heard.filter((at) => now - at < 1000);
    if (!parsed.success || parsed.data.device !== id || parsed.data.kind !== device.kind || device.heard.length >= MOST_A_SECOND) {
      device.dropped++;
      return false;
    }
    device.heard.push(now);
    device.last = parsed.data;
    this.news.emit(id, parsed.data);
    return true;
  }

  /** Listens to a device until what it gives is called; devices are played only while somebody listens. */
  listen(id: string, onMessage: (message: DeviceMessage) => void, onEnd: () => void): () => void {
    this.news.on(id, onMessage);
    this.news.on(`end:${id}`, onEnd);
    this.timer ??= setInterval(() => void this.tick(), EVERY_MS);
    return () => {
      this.news.off(id, onMessage);
      this.news.off(`end:${id}`, onEnd);
      if ([...this.devices.keys()].every((one) => this.news.listenerCount(one) === 0)) this.close();
    };
  }

  close(): void {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
  }

  private async tick(): Promise<void> {
    for (const [id, device] of this.devices) {
      if (!device.played || device.fault === "silent" || this.news.listenerCount(id) === 0) continue;
      const bake = device.bakeId === null ? null : await this.bakeOf(device.bakeId).catch(() => null);
      const now = Date.now();
      const shown = device.played.show(now, bake);
      if (!shown) continue;
      const message = { device: id, at: new Date(now).toISOString(), ...shown };
      if (device.fault === "nonsense") this.hear(id, this.random() < 0.5 ? "&%§{{" : { ...message, value: "much" });
      else for (let k = 0; k < (device.fault === "flood" ? 200 : 1); k++) this.hear(id, message, now);
    }
  }
}
