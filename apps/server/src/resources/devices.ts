import { forHelpers } from "../access/roles";
import websocket from "@fastify/websocket";
import { deviceCommandSchema, deviceInputSchema, type DeviceInput, type StoredDevice, storedDeviceSchema } from "@uprise/contract";
import { bakeEventSchema, type BakeEvent, type BakeRecord, foldBake } from "@uprise/core";
import type { FastifyInstance } from "fastify";
import { z } from "zod";
import { DeviceHub } from "../devices/hub";
import { Refusal } from "../errors";
import type { Store, StoredThing } from "../store/store";
import { type App, idParams, problems } from "../wire";
import { resource, withoutBody } from "./resource";
import { streamTo } from "./stream";

/** `rehearsing` is the bake that a stand-in stands in, so that a server that was started anew goes on with it. */
type Device = Pick<DeviceInput, "name" | "kind" | "simulated"> & { rehearsing?: string };

/** Pairs, names, tells and unplugs devices; what they show comes as server-sent events or over a WebSocket, one JSON object a line. */
export async function deviceRoutes(app: App, store: Store): Promise<void> {
  const rows = store.things<Device>("devices");
  const bakes = store.things<BakeRecord>("bakes");
  const hub = new DeviceHub(async (id) => {
    const row = await bakes.read(id);
    if (!row) return null;
    const events = (await store.events.of(id)).flatMap(({ id: eventId, at, kind, body }): BakeEvent[] => {
      const parsed = bakeEventSchema.safeParse({ ...(body as object), id: eventId, at, kind });
      return parsed.success ? [parsed.data] : [];
    });
    return { record: row.body, state: foldBake(row.body, events) };
  });
  app.addHook("onClose", () => hub.close());
  for (const { id, body } of await rows.list()) {
    hub.pair(id, body);
    if (body.rehearsing !== undefined) hub.tell(id, { command: "rehearse", bakeId: body.rehearsing });
  }
  const from = (row: StoredThing<Device>): StoredDevice => {
    const { name, kind, simulated } = row.body;
    return { ...withoutBody(row), name, kind, simulated, ...hub.state(row.id) };
  };
  resource<Device, StoredDevice>(app, {
    path: "/api/devices",
    what: "device",
    tag: "devices",
    input: deviceInputSchema,
    answer: storedDeviceSchema,
    list: async () => (await rows.list()).map(from),
    read: async (id) => rows.read(id).then((row) => (row ? from(row) : null)),
    create: async ({ id, name, kind, simulated }) => {
      const row = await rows.create(id, { name, kind, simulated });
      hub.pair(row.id, row.body);
      return from(row);
    },
    change: async (id, version, { name, kind, simulated }) => from(await rows.change(id, version, { name, kind, simulated })),
    remove: async (id, version) => {
      await rows.remove(id, version);
      hub.unplug(id);
    },
    isBuiltIn: () => false,
  });
  const find = async (id: string): Promise<StoredThing<Device>> => {
    const row = await rows.read(id);
    if (!row) throw new Refusal("not-found", `No device has the id "${id}". GET /api/devices lists them.`);
    return row;
  };
  app.post(
    "/api/devices/:id/command",
    { ...forHelpers, schema: { summary: "Tell a device something: tare, unit, set, rehearse", tags: ["devices"], params: idParams, body: deviceCommandSchema, response: { 204: z.null(), ...problems } } },
    async ({ params, body }, reply) => {
      const row = await find(params.id);
      if (!hub.tell(params.id, body)) throw new Refusal("unprocessable", "This device takes no commands; its bridge only sends.");
      if (body.command === "rehearse" && body.bakeId !== undefined)
        await rows.change(row.id, row.version, { ...row.body, rehearsing: body.bakeId });
      return reply.status(204).send(null);
    },
  ); // prettier-ignore
  await app.register(websocket, { options: { maxPayload: 4096 } });
  app.after(() => {
    (app as unknown as FastifyInstance).route<{ Params: { id: string } }>({
      method: "GET",
      url: "/api/devices/:id/stream",
      ...forHelpers,
      exposeHeadRoute: false,
      schema: {
        summary: "What a device shows: server-sent events, or a WebSocket by which a bridge may also speak",
        tags: ["devices"],
      },
      handler: async (request, reply) => {
        const { id } = await find(request.params.id);
        const stream = streamTo(reply);
        stream.onEnd(
          hub.listen(
            id,
            (message) => stream.send(message),
            () => stream.end(),
          ),
        );
        return reply;
      },
      wsHandler: (socket, request) => {
        const { id } = request.params;
        void find(id).then(
          (row) => {
            const stop = hub.listen(
              id,
              (message) => socket.send(`${JSON.stringify(message)}\n`),
              () => socket.close(),
            );
            socket.on("close", stop);
            socket.on("message", (data: Buffer) => {
              // A stand-in speaks for itself.
              if (!row.body.simulated)
                for (const line of data.toString("utf8").split("\n")) if (line.trim() !== "") hub.hear(id, line);
            });
          },
          () => socket.close(1008, "no such device"),
        );
      },
    });
  });
}
