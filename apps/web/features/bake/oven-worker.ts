import { perform, type Result, type Task } from "../../workers/tasks";

type Answer = { job: number; result?: unknown; error?: string };

interface Waiting {
  task: Task;
  done: (result: unknown) => void;
  failed: (message: string) => void;
}

/** The worker's file carries a hash of its content; the build says which. */
const FILE = process.env["EXPO_PUBLIC_BAKE_WORKER"] ?? "/bake-worker.js";
/** A bake takes some tens of ms; what takes this long hangs. */
export const LIMIT_MS = 20_000;

/**
 * One worker for all bakes of a page. Each channel keeps only its newest job: what was asked before it and has not begun is dropped. Jobs
 * run one after the other, so an answer is never older than the one before it; `cancel` drops the answer of a running job. A worker that
 * breaks or hangs is ended and told, and the next job gets a new one.
 */
class OvenWorker {
  private worker: Worker | null = null;
  private waiting = new Map<string, Waiting>();
  private running: { channel: string; number: number; waiting: Waiting; limit: ReturnType<typeof setTimeout> } | null = null;
  private count = 0;

  ask<T extends Task>(channel: string, task: T, done: (result: Result<T>) => void, failed: (message: string) => void): void {
    this.waiting.delete(channel);
    this.waiting.set(channel, { task, done: done as Waiting["done"], failed });
    this.next();
  }

  /** Forgets a channel: nothing more will come of it. */
  cancel(channel: string): void {
    this.waiting.delete(channel);
    if (this.running?.channel === channel)
      this.running.waiting = { ...this.running.waiting, done: () => undefined, failed: () => undefined };
  }

  private next(): void {
    if (this.running) return;
    const first = this.waiting.entries().next().value;
    if (!first) return;
    const [channel, waiting] = first;
    this.waiting.delete(channel);
    const number = ++this.count;
    const limit = setTimeout(() => this.broke(number, "The bake takes too long to compute and was stopped."), LIMIT_MS);
    this.running = { channel, number, waiting, limit };
    if (typeof Worker === "undefined") {
      // Where there are no workers (tests in jsdom) the same functions run here, later.
      setTimeout(() => this.answer({ job: number, ...here(waiting.task) }), 0);
      return;
    }
    try {
      this.open().postMessage({ job: number, task: waiting.task });
    } catch (error) {
      this.broke(number, `The bake could not be computed: ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  private open(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(FILE);
    worker.onmessage = (event: MessageEvent<Answer>) => this.answer(event.data);
    worker.onerror = (event) => {
      event.preventDefault();
      if (this.running) this.broke(this.running.number, "The bake could not be computed: its worker did not start.");
    };
    this.worker = worker;
    return worker;
  }

  /** The worker is of no use any more: it is ended, what it was at is told, and the queue goes on with a new one. */
  private broke(number: number, error: string): void {
    this.worker?.terminate();
    this.worker = null;
    this.answer({ job: number, error });
  }

  private answer({ job, result, error }: Answer): void {
    const running = this.running;
    if (!running || running.number !== job) return;
    clearTimeout(running.limit);
    this.running = null;
    try {
      if (error === undefined) running.waiting.done(result);
      else running.waiting.failed(error);
    } finally {
      this.next();
    }
  }
}

function here(task: Task): { result?: unknown; error?: string } {
  try {
    return { result: perform(task) };
  } catch (error) {
    return { error: error instanceof Error ? error.message : String(error) };
  }
}

export const ovenWorker = new OvenWorker();

/** Workers for the many runs of a range, beside the one that bakes; each begins when it is first asked. */
const MOST_SAMPLERS = 4;
export const samplers: readonly OvenWorker[] = Array.from(
  { length: Math.max(1, Math.min(MOST_SAMPLERS, globalThis.navigator?.hardwareConcurrency ?? 2)) },
  () => new OvenWorker(),
);
