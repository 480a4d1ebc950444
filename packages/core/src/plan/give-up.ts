import type { Job } from "./job";
import { type DayKitchen, schedule, type Schedule } from "./schedule";

/** Something that would bring a late day in time, and how many minutes of lateness it saves. */
export interface GiveUp {
  what: string;
  saves: number;
}

/** Tries of each proposal's own search: fewer than the day's, since many are asked. */
const TRIES = 120;
/** What is told at the most. */
const MOST = 5;
const QUARTER = 15;

const clockText = (iso: string): string => iso.slice(11, 16);

/**
 * What to give up on a day that cannot be: each is planned again and only told when that day is less late. A later deadline, an earlier start, one
 * more oven or pair of hands, a batch less.
 */
export function giveUpsOf(jobs: readonly Job[], kitchen: DayKitchen, found: Schedule, iso: (minute: number) => string): GiveUp[] {
  const out: GiveUp[] = [];
  const offer = (what: string, next: readonly Job[], with_: DayKitchen): void => {
    const then = schedule(next, with_, { tries: TRIES });
    const saves = then ? found.lateMinutes - then.lateMinutes : 0;
    if (saves > 0) out.push({ what: then?.lateMinutes === 0 ? what : `${what}; something is still late`, saves });
  };
  const lateJobs = found.placed.filter(({ job, ready }) => job.readyBy !== null && ready > job.readyBy);
  const late = new Map<string, number>();
  for (const { job, ready } of lateJobs) late.set(job.bakeId, Math.max(late.get(job.bakeId) ?? 0, ready));
  const worst = Math.max(0, ...lateJobs.map(({ job, ready }) => ready - (job.readyBy ?? ready)));
  const deadlines = [...late].map(([bakeId, ready]) => `${titleOf(jobs, bakeId)} by ${clockText(iso(Math.ceil(ready / 5) * 5))}`);
  offer(`A later deadline: ${deadlines.join(", ")}`, jobs.map((job) => (late.has(job.bakeId) ? { ...job, readyBy: Math.ceil((late.get(job.bakeId) ?? 0) / 5) * 5 } : job)), kitchen); // prettier-ignore
  if (kitchen.from === 0) {
    const earlier = Math.ceil(worst / QUARTER) * QUARTER;
    const moved = (job: Job): Job => ({ ...job, readyBy: job.readyBy === null ? null : job.readyBy + earlier, earliest: job.earliest > 0 ? job.earliest + earlier : 0, heldAt: job.heldAt === null ? null : job.heldAt + earlier }); // prettier-ignore
    if (jobs.every(({ done }) => done.size === 0)) offer(`Begin ${earlier} min earlier`, jobs.map(moved), kitchen);
  }
  const busiest = found.placed.map(({ ovenId }) => ovenId).sort((a, b) => count(found, b) - count(found, a))[0];
  const oven = kitchen.ovens.find(({ id }) => id === busiest);
  if (oven) {
    const second = { ...oven, id: `${oven.id}+` };
    const both = (job: Job): Job => {
      const here = job.inOven.get(oven.id);
      return here ? { ...job, inOven: new Map([...job.inOven, [second.id, here]]) } : job;
    };
    offer(`A second oven like ${oven.name}`, jobs.map(both), { ...kitchen, ovens: [...kitchen.ovens, second] });
  }
  offer("One more pair of hands", jobs, { ...kitchen, hands: kitchen.hands + 1 });
  for (const bakeId of new Set(jobs.map((job) => job.bakeId))) {
    const of = jobs.filter((job) => job.bakeId === bakeId);
    const last = of.at(-1);
    if (!last || last.done.size > 0 || jobs.length === 1) continue;
    offer(
      of.length > 1 ? `One batch less of ${last.title}` : `Without ${last.title}`,
      jobs.filter((job) => job !== last),
      kitchen,
    );
  }
  return out.sort((a, b) => b.saves - a.saves).slice(0, MOST);
}

const titleOf = (jobs: readonly Job[], bakeId: string): string => jobs.find((job) => job.bakeId === bakeId)?.title ?? bakeId;
const count = ({ placed }: Schedule, id: string): number => placed.filter(({ ovenId }) => ovenId === id).length;
