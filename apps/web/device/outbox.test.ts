import "fake-indexeddb/auto";
import { keepEvent, type Sent, sendWaiting, waitingEvents } from "./outbox";

type Event = { id: string; at: string };
const at = (second: number): string => new Date(Date.UTC(2026, 10, 28, 5, 0, second)).toISOString();

test("asked to send while a sending finds no answer, it tries once more, with what came since, the oldest first", async () => {
  await keepEvent("bake", { id: "b", at: at(2) });
  const calls: string[][] = [];
  let answer: (sent: Sent) => void = () => undefined;
  const send = (events: Event[]): Promise<Sent> => {
    calls.push(events.map(({ id }) => id));
    return calls.length === 1 ? new Promise((resolve) => (answer = resolve)) : Promise.resolve({ ended: "arrived" });
  };
  const first = sendWaiting<Event>("bake", send);
  while (calls.length === 0) await new Promise((resolve) => setTimeout(resolve, 1));
  await keepEvent("bake", { id: "a", at: at(1) });
  const second = sendWaiting<Event>("bake", send);
  answer({ ended: "no-answer" });
  await Promise.all([first, second]);
  expect(calls).toEqual([["b"], ["a", "b"]]);
  expect(await waitingEvents("bake")).toEqual([]);
});

test("with no answer and nobody asking, it does not try again by itself, and all of it waits", async () => {
  await keepEvent("other", { id: "a", at: at(1) });
  let calls = 0;
  await sendWaiting<Event>("other", async () => (calls++, { ended: "no-answer" }));
  expect(calls).toBe(1);
  expect((await waitingEvents<Event>("other")).map(({ event }) => event.id)).toEqual(["a"]);
});

test("what is refused for good stays with its reason and holds up nothing else", async () => {
  await keepEvent("third", { id: "a", at: at(1) });
  await keepEvent("third", { id: "b", at: at(2) });
  await sendWaiting<Event>("third", async () => ({ ended: "arrived", refused: [{ id: "a", message: "no such step" }] }));
  expect(await waitingEvents<Event>("third")).toMatchObject([{ event: { id: "a" }, refused: "no such step" }]);
});
