import { Refusal } from "./errors";
import { explain } from "./problems";

test("a full disk is a sentence of its own, however deep it is told", () => {
  const full = Object.assign(new Error("SQLITE_FULL: database or disk is full"), { code: "SQLITE_FULL" });
  const wrapped = Object.assign(new Error("write failed"), { original: { code: "SQLITE_FULL" } });
  const disk = Object.assign(new Error("no space left on device"), { code: "ENOSPC" });
  for (const error of [full, wrapped, disk]) {
    expect(explain(error)).toMatchObject({ status: 507, type: "urn:uprise:problem:disk-full" });
    expect(explain(error).detail).toMatch(/make room/);
  }
});

test("what is refused says its code and what is there; what is not foreseen says nothing of its insides", () => {
  expect(explain(new Refusal("stale", "Somebody was faster.", { current: { version: 3 } }))).toMatchObject({
    status: 412,
    detail: "Somebody was faster.",
    current: { version: 3 },
  });
  const secret = explain(new Error("SELECT secret FROM things"));
  expect(secret.status).toBe(500);
  expect(JSON.stringify(secret)).not.toMatch(/secret/);
});

test("a request that is too large or malformed is the sender's, with what would be right", () => {
  expect(explain(Object.assign(new Error("x"), { statusCode: 413 }))).toMatchObject({ status: 413 });
  expect(explain(Object.assign(new Error("x"), { statusCode: 415 })).detail).toMatch(/application\/json would be right/);
  expect(explain(Object.assign(new Error("Unexpected token"), { statusCode: 400 }))).toMatchObject({ status: 400 });
});
