import "fake-indexeddb/auto";
import { keepPaper, papersOf, takeUpPaper } from "./papers";
import { tabId } from "./tab";

/** Tabs that are open, as the browser's locks would have it. */
const open = new Set<string>();
beforeAll(() => {
  Object.assign(navigator, {
    locks: {
      request: (name: string, _: unknown, granted: (lock: object | null) => unknown) => {
        const free = !open.has(name);
        open.add(name);
        return Promise.resolve(granted(free ? {} : null));
      },
      query: () => Promise.resolve({ held: [...open].map((name) => ({ name })) }),
    },
  });
});

const always = (): boolean => true;

/** Lays a paper of another tab on the desk. */
async function lay(tab: string, body: unknown, at: number): Promise<void> {
  const request = indexedDB.open("uprise", 1);
  await new Promise((done) => (request.onsuccess = done));
  const transaction = request.result.transaction("papers", "readwrite");
  transaction.objectStore("papers").put({ key: `draft/pier/${tab}`, kind: "draft", of: "pier", tab, at, body });
  await new Promise((done) => (transaction.oncomplete = done));
  request.result.close();
}

test("what is kept is found again, the last of many writes, and is gone when taken away", async () => {
  for (let n = 0; n < 50; n++) void keepPaper("draft", "loaf", { n });
  expect(await takeUpPaper("draft", "loaf", always)).toEqual({ body: { n: 49 }, aside: [], elsewhere: [] });
  await keepPaper("draft", "loaf", null);
  expect(await papersOf("draft", "loaf")).toEqual([]);
});

test("a closed tab's paper is gone on with here; an open tab's stays its own", async () => {
  open.add("uprise.tab.alive");
  await lay("alive", "theirs", 3);
  await lay("closed", "left", 2);
  await lay("older", "older", 1);
  const found = await takeUpPaper("draft", "pier", always);
  expect(found.body).toBe("left");
  expect(found.aside.map(({ body }) => body)).toEqual(["older"]);
  expect(found.elsewhere.map(({ body }) => body)).toEqual(["theirs"]);
  const mine = (await papersOf("draft", "pier")).filter(({ mine: own }) => own).map(({ paper }) => paper);
  expect(mine).toEqual([expect.objectContaining({ tab: await tabId(), body: "left" })]);
});

test("a paper that cannot be read is left where it is and set aside", async () => {
  await keepPaper("draft", "pier", null);
  await lay("closed", "broken", 9);
  const found = await takeUpPaper("draft", "pier", (body) => body !== "broken");
  expect(found.aside.map(({ body }) => body)).toContain("broken");
  expect((await papersOf("draft", "pier")).map(({ paper }) => paper.body)).toContain("broken");
});
