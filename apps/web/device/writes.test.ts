import "fake-indexeddb/auto";
import { dropWrite, hearWrites, keepWrite, type KeptWrite, sendWrites, waitingWrites, type WriteEnd } from "./writes";

const write = (key: string, at: number, more: Partial<KeptWrite> = {}): KeptWrite => ({ key, name: key, at, method: "PUT", path: `/api/${key}`, body: { at }, ...more }); // prettier-ignore
const keysNow = async (): Promise<string[]> => (await waitingWrites()).map(({ key }) => key);
afterEach(async () => {
  for (const key of await keysNow()) await dropWrite(key);
});

test("what waits goes out in the order in which it was saved, a later save of a thing in place of the one before", async () => {
  await keepWrite(write("b", 2));
  await keepWrite(write("a", 1));
  await keepWrite(write("b", 3));
  const sent: [string, unknown][] = [];
  await sendWrites(async ({ key, body }) => {
    sent.push([key, body]);
    return { ended: "arrived" };
  });
  expect(sent).toEqual([
    ["a", { at: 1 }],
    ["b", { at: 3 }],
  ]);
  expect(await keysNow()).toEqual([]);
});

test("without an answer everything stays, in its order, and is sent once when there is one", async () => {
  for (const k of [1, 2, 3]) await keepWrite(write(`k${k}`, k));
  const seen: string[] = [];
  let up = false;
  const send = async ({ key }: KeptWrite): Promise<WriteEnd> => {
    if (!up && key === "k2") return { ended: "no-answer" };
    seen.push(key);
    return { ended: "arrived" };
  };
  await sendWrites(send);
  expect(await keysNow()).toEqual(["k2", "k3"]);
  up = true;
  await Promise.all([sendWrites(send), sendWrites(send)]);
  expect(seen).toEqual(["k1", "k2", "k3"]);
});

test("what is refused stays with its reason and where it is mended, and holds nothing up", async () => {
  await keepWrite(write("mine", 1));
  await keepWrite(write("other", 2));
  await sendWrites(async ({ key }) => (key === "mine" ? { ended: "refused", why: "somebody was first", to: "/bench/mine" } : { ended: "arrived" })); // prettier-ignore
  expect(await waitingWrites()).toEqual([
    expect.objectContaining({ key: "mine", refused: "somebody was first", to: "/bench/mine" }),
  ]);
  let asked = 0;
  await sendWrites(async () => {
    asked++;
    return { ended: "arrived" };
  });
  expect(asked).toBe(0);
});

test("a save made while the one before is on its way is not lost with it", async () => {
  await keepWrite(write("a", 1));
  await sendWrites(async () => {
    await keepWrite(write("a", 2));
    return { ended: "arrived" };
  });
  expect((await waitingWrites()).map(({ at }) => at)).toEqual([2]);
});

test("who listens is told of every change", async () => {
  let told = 0;
  const stop = hearWrites(() => told++);
  await keepWrite(write("a", 1));
  await dropWrite("a");
  stop();
  await keepWrite(write("b", 1));
  expect(told).toBe(2);
});
