import { proxy, wrap } from "comlink";
import type { KitchenWorker } from "../workers/kitchen.worker";
import type { Args, Fault, Outcome, Result, TaskName, Tell } from "../workers/tasks";

/** The worker's file carries a hash of its content; the build says which. */
const FILE = process.env["EXPO_PUBLIC_KITCHEN_WORKER"] ?? "/kitchen-worker.js";
/** The longest that anything may take; what takes longer hangs. */
export const LIMIT_MS = 20_000;
/** A job whose answer nobody wants any more is ended when it has run for so long: a new worker is there sooner. */
const ENDED_AFTER_MS = 1500;

interface Job {
  name: TaskName;
  args: readonly unknown[];
  done: (outcome: Outcome<TaskName>) => void;
  tell: Tell | undefined;
}
interface Running {
  channel: string;
  job: Job | null;
  since: number;
  limit: ReturnType<typeof setTimeout>;
}

type Perform = <N extends TaskName>(name: N, args: Args<N>, tell?: Tell) => Outcome<N>;
let local: Perform | null = null;
/** Where there are no workers (tests in jsdom) the same functions run here. */
export const runHere = (perform: Perform | null): void => {
  local = perform;
};
/** The same functions, where there are no workers. */
export const here = (): Perform | null => local;

/**
 * One worker with its queue. Each channel keeps only its newest job: what was asked before it and has not begun is dropped, and the answer of one that
 * runs is dropped too. Jobs run one after the other. A worker that breaks or hangs is ended and told, and the next job gets a new one.
 */
class Hand {
  private worker: { thread: Worker; perform: (job: Job, tell: Tell) => Promise<unknown> } | null = null;
  private waiting = new Map<string, Job>();
  private running: Running | null = null;

  ask<N extends TaskName>(channel: string, name: N, args: Args<N>, done: (outcome: Outcome<N>) => void, tell?: Tell): void {
    this.cancel(channel);
    this.waiting.set(channel, { name, args, done: done as Job["done"], tell });
    this.next();
  }

  /** Forgets a channel: nothing more will come of it. */
  cancel(channel: string): void {
    this.waiting.delete(channel);
    const { running } = this;
    if (running?.channel !== channel || !running.job) return;
    running.job = null;
    if (Date.now() - running.since > ENDED_AFTER_MS) this.broke(running, null);
  }

  /** Has its thread started, for what will soon be asked. */
  warm(): void {
    if (!local) this.open();
  }

  /** Ends the thread as the browser might, for tests. */
  kill(): void {
    if (this.running) this.broke(this.running, { code: null, message: "The worker was ended." });
    else this.end();
  }

  private next(): void {
    if (this.running) return;
    const first = this.waiting.entries().next().value;
    if (!first) return;
    const [channel, job] = first;
    this.waiting.delete(channel);
    const tooLong = { code: null, message: "This takes too long to compute and was stopped." };
    const running: Running = {
      channel,
      job,
      since: Date.now(),
      limit: setTimeout(() => this.broke(running, tooLong), LIMIT_MS),
    };
    this.running = running;
    if (local) {
      setTimeout(() => this.answer(running, local?.(job.name, job.args as never, job.tell) as Outcome<TaskName>), 0);
      return;
    }
    const failed = (error: unknown): void =>
      this.broke(running, {
        code: null,
        message: `This could not be computed: ${error instanceof Error ? error.message : String(error)}`,
      });
    try {
      this.open()
        .perform(job, (done) => this.running?.job === job && job.tell?.(done))
        .then((outcome) => this.answer(running, outcome as Outcome<TaskName>), failed);
    } catch (error) {
      failed(error);
    }
  }

  private open(): NonNullable<Hand["worker"]> {
    if (this.worker) return this.worker;
    const thread = new Worker(FILE);
    thread.onerror = (event) => {
      event.preventDefault();
      if (this.running) this.broke(this.running, { code: null, message: "This could not be computed: its worker did not start." });
      else this.end();
    };
    const remote = wrap<KitchenWorker>(thread);
    this.worker = {
      thread,
      // Only who wants to hear it is told: a way back costs a channel.
      perform: ({ name, args, tell: isTold }, tell) =>
        (isTold ? remote.perform(name, args as never, proxy(tell)) : remote.perform(name, args as never)) as Promise<unknown>,
    };
    return this.worker;
  }

  private end(): void {
    this.worker?.thread.terminate();
    this.worker = null;
  }

  /** The worker is of no use any more: it is ended, what it was at is told, and the queue goes on with a new one. */
  private broke(running: Running, fault: Fault | null): void {
    if (this.running !== running) return;
    this.end();
    this.answer(running, { fault: fault ?? { code: null, message: "Nobody waits for it any more." } });
  }

  private answer(running: Running, outcome: Outcome<TaskName>): void {
    if (this.running !== running) return;
    clearTimeout(running.limit);
    this.running = null;
    try {
      running.job?.done(outcome);
    } finally {
      this.next();
    }
  }
}

/** Reading, judging and the first bake, while one types; and what takes its time: fine bakes, ways out, papers. */
const hands = { quick: new Hand(), oven: new Hand() };
export type HandName = keyof typeof hands;

const inOven = new Set<TaskName>(["ways", "simulate", "runs", "draw", "paper", "lay-out", "balance", "wished", "swap", "split", "label", "slice", "measure-slice", "season"]); // prettier-ignore
const handFor = (name: TaskName, args: readonly unknown[]): Hand =>
  hands[inOven.has(name) || (name === "bake" && args[2] === "fine") ? "oven" : "quick"];

/** Begins to fetch the kitchen while a room that will ask it is being fetched; what keeps it from starting is told when it is asked. */
export function warmKitchen(): void {
  try {
    hands.quick.warm();
  } catch {
    // A browser without workers says so at the first question.
  }
}
export const killOven = (): void => hands.oven.kill();

/** What a task came to, or why it came to nothing. */
export class TaskError extends Error {
  constructor(readonly fault: Fault) {
    super(fault.message);
  }
}

/** Asks on a channel, where the newest question counts; the returned function takes it back. */
export function askOn<N extends TaskName>(
  channel: string,
  name: N,
  args: Args<N>,
  done: (outcome: Outcome<N>) => void,
  tell?: Tell,
): () => void {
  const hand = handFor(name, args);
  hand.ask(channel, name, args, done, tell);
  return () => hand.cancel(channel);
}

let count = 0;
/** Asks once, and hears how far it is; `signal` takes it back. Rejects with a `TaskError`. */
export const askTold = <N extends TaskName>(name: N, args: Args<N>, tell?: Tell, signal?: AbortSignal): Promise<Result<N>> =>
  new Promise((resolve, reject) => {
    const done = (outcome: Outcome<N>): void =>
      "result" in outcome ? resolve(outcome.result) : reject(new TaskError(outcome.fault));
    const takeBack = askOn(`once ${++count}`, name, args, done, tell);
    signal?.addEventListener("abort", () => {
      takeBack();
      reject(signal.reason as Error);
    });
  });

/** Asks once. Rejects with a `TaskError`. */
export const ask = <N extends TaskName>(name: N, ...args: Args<N>): Promise<Result<N>> => askTold(name, args);
