import { availableParallelism } from "node:os";
import { CoreError } from "@uprise/core";
import { Piscina } from "piscina";
import { Refusal } from "../errors";
import { type Answer, type Asked, type KitchenData, perform, type TaskName } from "./tasks";
import { type Outcome, WATCHED } from "./worker";

/** Who waits for a long task: told the share that is done, and able to go. */
export interface Watch {
  onProgress: (done: number) => void;
  signal: AbortSignal;
}

/** Does the tasks of the wire away from the thread that answers it. Throws the core's errors, `busy`, `took-too-long`. */
export interface Computer {
  run<K extends TaskName>(name: K, asked: Asked[K], kitchen: KitchenData, watch?: Watch): Promise<Answer<K>>;
  close(): Promise<void>;
}

/** The longest that one task may take once it has begun, and the longest that it may wait for that, ms. */
export const TASK_LIMIT_MS = 20_000;
const WAIT_LIMIT_MS = 60_000;
const QUEUE = 200;

/** Reading, judging, and what saving waits for: they have a lane of their own and never stand behind what takes seconds. */
const short: ReadonlySet<TaskName> = new Set<TaskName>(["read", "analyse", "simulate", "predict", "counter", "label"]);

/** What could make a task that was stopped a shorter one. */
const shorter: Partial<Record<TaskName, string>> = {
  read: "A shorter text would be right.",
  import: "A shorter text, or fewer recipes at once, would be right.",
  carry: "Fewer formulas at once would be right.",
  plan: "A day with fewer bakes would be right.",
  season: "Fewer things that move would be right.",
};

/** Where there is no bundle for a thread (tests of the server's own parts), the same functions run here. */
const here: Computer = {
  run: async (name, asked, kitchen, watch) =>
    perform(name, asked, kitchen, (done) => {
      watch?.onProgress(done);
      return watch?.signal.aborted === true;
    }),
  close: async () => undefined,
};

/** Some threads on the worker's bundle and those who wait for them, in their order. */
class Lane {
  private readonly pool: Piscina;
  private running = 0;
  private readonly waiting: (() => void)[] = [];

  constructor(
    filename: string,
    private readonly threads: number,
    idleMs: number,
  ) {
    this.pool = new Piscina({ filename, minThreads: 0, maxThreads: threads, idleTimeout: idleMs, maxQueue: QUEUE });
  }

  /** Waits for a free thread. Throws `busy` where too many wait, or for too long. */
  private async turn(): Promise<void> {
    const busy = (): Refusal => new Refusal("busy", "Too much is being computed at once; try again in some seconds.");
    if (this.running < this.threads) return void this.running++;
    if (this.waiting.length >= QUEUE) throw busy();
    await new Promise<void>((done, fail) => {
      const begin = (): void => {
        clearTimeout(timer);
        this.running++;
        done();
      };
      const timer = setTimeout(() => {
        this.waiting.splice(this.waiting.indexOf(begin), 1);
        fail(busy());
      }, WAIT_LIMIT_MS);
      this.waiting.push(begin);
    });
  }

  /** Runs one task; its time counts from when it begins. */
  async run(work: { name: TaskName }, limitMs: number): Promise<Outcome> {
    await this.turn();
    const abort = new AbortController();
    const timer = setTimeout(() => abort.abort(), limitMs);
    try {
      return (await this.pool.run(work, { signal: abort.signal })) as Outcome;
    } catch (error) {
      if (!abort.signal.aborted) throw error;
      const way = shorter[work.name] ?? "Try it again; a smaller batch is quicker.";
      throw new Refusal(
        "took-too-long",
        `This took longer than ${Math.max(1, Math.round(limitMs / 1000))} s and was stopped. ${way}`,
      );
    } finally {
      clearTimeout(timer);
      this.running--;
      this.waiting.shift()?.();
    }
  }

  close(): Promise<void> {
    return this.pool.destroy();
  }
}

/** Two lanes of threads on the worker's bundle; one core is left for answering. */
export function openComputer(workerFile: string | null, limitMs = TASK_LIMIT_MS): Computer {
  if (workerFile === null) return here;
  const quick = new Lane(workerFile, 1, 30 * 60_000);
  const long = new Lane(workerFile, Math.max(1, availableParallelism() - 1), 60_000);
  return {
    async run(name, asked, kitchen, watch) {
      const watched = watch ? new SharedArrayBuffer(8) : undefined;
      const ended = watch && watched ? look(new Int32Array(watched), watch) : undefined;
      try {
        const work = { name, asked, kitchen, watched };
        const outcome = await (short.has(name) ? quick : long).run(work, limitMs);
        if ("refused" in outcome) throw new CoreError(outcome.refused.code, outcome.refused.message, outcome.refused.path);
        return outcome.answer as never;
      } finally {
        ended?.();
      }
    },
    close: async () => void (await Promise.all([quick.close(), long.close()])),
  };
}

/** How often the one who waits is told, ms. */
const LOOK_MS = 150;

/** Looks at what a thread has done and tells it; what it gives back ends that. */
function look(shared: Int32Array, { onProgress, signal }: Watch): () => void {
  const stop = (): void => void Atomics.store(shared, WATCHED.stop, 1);
  if (signal.aborted) stop();
  signal.addEventListener("abort", stop);
  let told = -1;
  const timer = setInterval(() => {
    const done = Atomics.load(shared, WATCHED.done);
    if (done !== told) onProgress((told = done) / 1000);
  }, LOOK_MS);
  return () => {
    clearInterval(timer);
    signal.removeEventListener("abort", stop);
  };
}
