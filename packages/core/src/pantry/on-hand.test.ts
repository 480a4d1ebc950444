import { onHand, usedUp } from "./on-hand";
import type { Packet } from "./packet-schema";

const packet = (ingredientId: string, leftG?: number, more: Partial<Packet> = {}): Packet => ({ ingredientId, name: ingredientId, sizeG: 500, currency: "EUR", leftG, ...more }); // prettier-ignore

test("an empty packet is not on hand, an uncounted one is; what was said beside them counts", () => {
  const packets = [packet("kefir", 0), packet("salt"), packet("butter", 40), packet("honey", 100)];
  expect([...onHand(packets, { there: ["vinegar"], gone: ["honey"] })].sort()).toEqual(["butter", "salt", "vinegar"]);
});

test("a bake takes from the packet that ends first, then from the next, and never more than is there", () => {
  const packets = [
    { id: "late", packet: packet("flour", 300, { bestBefore: "2027-05-01" }) },
    { id: "soon", packet: packet("flour", 120, { bestBefore: "2026-12-10" }) },
    { id: "none", packet: packet("flour") },
    { id: "salt", packet: packet("salt") },
  ];
  expect(usedUp(packets, new Map([["flour", 200], ["salt", 5], ["egg", 100]]))).toEqual([
    { id: "soon", usedG: 120, leftG: 0 },
    { id: "late", usedG: 80, leftG: 220 },
  ]); // prettier-ignore
  // By hand: what is asked of 420 g counted is 600; 420 is taken, nothing goes below nothing.
  const all = usedUp(packets, new Map([["flour", 600]]));
  expect(all.reduce((sum, { usedG }) => sum + usedG, 0)).toBe(420);
  expect(all.every(({ leftG }) => leftG === 0)).toBe(true);
});
