import type { FastifyReply, FastifyRequest } from "fastify";
import type { Watch } from "../compute/pool";
import { explain } from "../problems";

/** A line is kept open by a word every so often, ms. */
const ALIVE_MS = 15_000;
/** Who does not read what is sent is let go, bytes. */
const MOST_UNREAD = 1_000_000;

export interface Stream {
  send(data: unknown, id?: string): void;
  onEnd(does: () => void): void;
  end(): void;
}

/** Server-sent events to one listener, until it goes or does not read. */
export function streamTo(reply: FastifyReply): Stream {
  reply.hijack();
  const { raw } = reply;
  raw.writeHead(200, { "content-type": "text/event-stream", "cache-control": "no-store", "x-accel-buffering": "no" });
  raw.write("retry: 1500\n\n");
  const ends: (() => void)[] = [];
  const alive = setInterval(() => raw.write(": alive\n\n"), ALIVE_MS);
  const end = (): void => {
    clearInterval(alive);
    for (const does of ends.splice(0)) does();
    if (!raw.writableEnded) raw.end();
  };
  // A request is closed as soon as it is read; the answer is when the one who asked has gone.
  raw.on("close", end);
  raw.on("error", end);
  return {
    send(data, id) {
      if (raw.writableEnded) return;
      raw.write(`${id === undefined ? "" : `id: ${id}\n`}data: ${JSON.stringify(data)}\n\n`);
      if (raw.writableLength > MOST_UNREAD) end();
    },
    onEnd: (does) => void ends.push(does),
    end,
  };
}

/**
 * A long answer: at once where it is asked for so, and asked for as a stream it tells how far it is, then the answer under its name, or the problem. Who
 * goes away stops it.
 */
export async function toldAs(
  name: "plan" | "season",
  { headers, log }: FastifyRequest,
  reply: FastifyReply,
  work: (watch?: Watch) => Promise<unknown>,
): Promise<unknown> {
  if (headers.accept !== "text/event-stream") return work();
  const stream = streamTo(reply);
  const abort = new AbortController();
  stream.onEnd(() => abort.abort());
  try {
    stream.send({ [name]: await work({ onProgress: (progress) => stream.send({ progress }), signal: abort.signal }) });
  } catch (error) {
    const problem = explain(error instanceof Error ? error : new Error(String(error)));
    if (problem.status >= 500) log.error(error);
    stream.send({ problem });
  }
  stream.end();
  return reply;
}
