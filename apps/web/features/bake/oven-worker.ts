import { type SimulateOptions, type Simulation, simulateStart, type Start } from "@uprise/core";

export interface Job {
  start: Start;
  massSpread: number;
  options: SimulateOptions;
}
type Answer = { job: number; simulation?: Simulation; error?: string };

interface Waiting {
  job: Job;
  done: (simulation: Simulation) => void;
  failed: (message: string) => void;
}

/**
 * One worker for all bakes of a page. Each channel keeps only its newest job: what was asked before it and has not begun is dropped. Jobs
 * run one after the other, so an answer is never older than the one before it; `cancel` drops the answer of a running job.
 */
class OvenWorker {
  private worker: Worker | null = null;
  private waiting = new Map<string, Waiting>();
  private running: { channel: string; number: number; waiting: Waiting } | null = null;
  private count = 0;

  ask(channel: string, waiting: Waiting): void {
    this.waiting.delete(channel);
    this.waiting.set(channel, waiting);
    this.next();
  }

  /** Forgets a channel: nothing more will come of it. */
  cancel(channel: string): void {
    this.waiting.delete(channel);
    if (this.running?.channel === channel) this.running.waiting = { ...this.running.waiting, done: () => {}, failed: () => {} };
  }

  private next(): void {
    if (this.running) return;
    const first = this.waiting.entries().next().value;
    if (!first) return;
    const [channel, waiting] = first;
    this.waiting.delete(channel);
    this.running = { channel, number: ++this.count, waiting };
    const { start, massSpread, options } = waiting.job;
    if (typeof Worker === "undefined") {
      // Where there are no workers (tests in jsdom) the same function runs here, later.
      const number = this.count;
      setTimeout(() => this.answer({ job: number, simulation: simulateStart(start, massSpread, options) }), 0);
      return;
    }
    this.open().postMessage({ job: this.count, start, massSpread, options });
  }

  private open(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker("/bake-worker.js");
    worker.onmessage = (event: MessageEvent<Answer>) => this.answer(event.data);
    worker.onerror = (event) => {
      event.preventDefault();
      const running = this.running;
      this.worker = null;
      worker.terminate();
      if (running) this.answer({ job: running.number, error: "The bake could not be computed: its worker did not start." });
    };
    this.worker = worker;
    return worker;
  }

  private answer({ job, simulation, error }: Answer): void {
    const running = this.running;
    if (!running || running.number !== job) return;
    this.running = null;
    if (simulation) running.waiting.done(simulation);
    else running.waiting.failed(error ?? "The bake could not be computed.");
    this.next();
  }
}

export const ovenWorker = new OvenWorker();
