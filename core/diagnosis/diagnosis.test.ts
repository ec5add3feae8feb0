import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { worthOf } from "./choose";
import { evidence, posterior, weighing } from "./infer";
import { moreOften } from "./conditions";
import { goneAfter, goneSince } from "./gone";
import { seeded } from "../flash/dialect/encode";
import type { Finding, Network, Seen } from "./network";

const share = fc.double({ min: 0.001, max: 0.7, noNaN: true });
const network = fc
  .tuple(fc.array(share, { minLength: 1, maxLength: 7 }), fc.integer({ min: 1, max: 6 }))
  .chain(([priors, n]) => {
    const links = fc.array(fc.tuple(fc.nat(priors.length - 1), share), { maxLength: priors.length });
    const once = links.map((l) => [...new Map(l)]);
    const finding = fc.record({ leak: fc.double({ min: 1e-6, max: 0.2, noNaN: true }), links: once });
    return fc.record({
      net: fc.array(finding, { minLength: n, maxLength: n }).map((findings): Network => ({
        causes: priors.map((prior) => ({ prior })),
        findings,
      })),
      sides: fc.array(fc.constantFrom("present", "absent", "open"), { minLength: n, maxLength: n }),
      check: finding,
    });
  });

const seenOf = (sides: readonly string[]): Seen => ({
  present: sides.flatMap((s, i) => (s === "present" ? [i] : [])),
  absent: sides.flatMap((s, i) => (s === "absent" ? [i] : [])),
});

/** Chance that a finding is seen in a world. */
const shown = (f: Finding, there: readonly boolean[]) =>
  1 - f.links.reduce((q, [i, p]) => (there[i] ? q * (1 - p) : q), 1 - f.leak);

/** All worlds with their weight, one by one. */
function worlds({ causes, findings }: Network, seen: Seen): { there: boolean[]; p: number }[] {
  return Array.from({ length: 1 << causes.length }, (_, w) => {
    const there = causes.map((_, i) => (w & (1 << i)) > 0);
    const prior = causes.reduce((p, c, i) => p * (there[i] ? c.prior : 1 - c.prior), 1);
    const yes = seen.present.reduce((p, f) => p * shown(findings[f], there), prior);
    return { there, p: seen.absent.reduce((p, f) => p * (1 - shown(findings[f], there)), yes) };
  });
}

describe("exact inference", () => {
  test("equals the sum over all worlds to 1e-9", () => {
    fc.assert(
      fc.property(network, ({ net, sides }) => {
        const seen = seenOf(sides);
        const all = worlds(net, seen);
        const total = all.reduce((s, w) => s + w.p, 0);
        expect(evidence(weighing(net, seen)) / total).toBeCloseTo(1, 9);
        for (const [i, p] of posterior(net, seen).entries())
          expect(p).toBeCloseTo(all.reduce((s, w) => s + (w.there[i] ? w.p : 0), 0) / total, 9);
      }),
      { numRuns: 300 },
    );
  });

  test("what a check would tell equals the information that all worlds give", () => {
    const h = (p: number) => (p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p));
    fc.assert(
      fc.property(network, ({ net, sides, check }) => {
        const seen = seenOf(sides);
        const few = { ...check, links: check.links.slice(0, 4) };
        const all = worlds(net, seen);
        const total = all.reduce((s, w) => s + w.p, 0);
        const bad = all.reduce((s, w) => s + w.p * shown(few, w.there), 0) / total;
        const noise = all.reduce((s, w) => s + w.p * h(shown(few, w.there)), 0) / total;
        const [told] = worthOf(net, seen, posterior(net, seen), [few]);
        expect(told.bad).toBeCloseTo(bad, 9);
        expect(told.bits).toBeCloseTo(Math.max(0, h(bad) - noise), 9);
      }),
      { numRuns: 300 },
    );
  });

  test("twelve rare findings at once keep their digits", () => {
    const causes = Array.from({ length: 40 }, () => ({ prior: 1e-3 }));
    const findings = Array.from({ length: 12 }, (_, f) => ({
      leak: 1e-4,
      links: [[f, 0.9] as const, [f + 12, 0.5] as const],
    }));
    const p = posterior({ causes, findings }, { present: findings.map((_, i) => i), absent: [] });
    // Each finding hangs on its own two causes, so that two worlds of two suffice.
    const alone = posterior(
      { causes: causes.slice(0, 2), findings: [{ leak: 1e-4, links: [[0, 0.9] as const, [1, 0.5] as const] }] },
      { present: [0], absent: [] },
    );
    for (let f = 0; f < 12; f++) {
      expect(p[f] / alone[0]).toBeCloseTo(1, 9);
      expect(p[f + 12] / alone[1]).toBeCloseTo(1, 9);
    }
    expect(p[30]).toBeCloseTo(1e-3, 12);
  });
});

test("one share is greater than another as often as drawing both says", () => {
  // Beta(on + 1, off + 1) held against a sum over a grid of both shares.
  const density = (p: number, on: number, of: number) => p ** on * (1 - p) ** (of - on);
  const steps = Array.from({ length: 400 }, (_, i) => (i + 0.5) / 400);
  fc.assert(
    fc.property(fc.nat(12), fc.nat(12), fc.nat(12), fc.nat(12), (a, b, c, d) => {
      const [x, y] = [
        { on: a, of: a + b },
        { on: c, of: c + d },
      ];
      let [more, all, below] = [0, 0, 0];
      for (const p of steps) {
        const own = density(p, x.on, x.of);
        const here = density(p, y.on, y.of);
        more += own * (below + here / 2);
        below += here;
        all += own;
      }
      expect(moreOften(x, y)).toBeCloseTo(more / (all * below), 3);
    }),
    { numRuns: 60 },
  );
});

test("that a fault is gone is said as often as it is so", () => {
  const random = seeded(11);
  const bins = Array.from({ length: 10 }, () => ({ said: 0, was: 0, n: 0 }));
  for (let k = 0; k < 60_000; k++) {
    const rate = random();
    const gone = random() < 0.5;
    const of = 1 + Math.floor(6 * random());
    const on = Array.from({ length: of }, () => random() < rate).filter(Boolean).length;
    const quiet = Math.floor(7 * random());
    // Only those of which nothing was seen since are asked of.
    if (!gone && Array.from({ length: quiet }, () => random() < rate).some(Boolean)) continue;
    const p = goneAfter({ on, of }, quiet);
    const bin = bins[Math.min(9, Math.floor(10 * p))];
    bin.said += p;
    bin.was += Number(gone);
    bin.n++;
  }
  const all = bins.reduce((s, b) => s + b.n, 0);
  const error = bins.reduce((e, b) => e + Math.abs(b.said - b.was) / all, 0);
  expect(all).toBeGreaterThan(30_000);
  expect(error).toBeLessThan(0.015);
});

test("drives that were not as when it came on prove nothing, and one on which it came on proves that it is there", () => {
  const drive = (day: number, cameOn: boolean, ...conditions: string[]) => ({
    at: `2026-11-${10 + day}`,
    cameOn,
    conditions,
  });
  const before = [1, 2, 3, 4].flatMap((d) => [drive(d, true, "Wet"), drive(d, false, "Dry")]);
  expect(goneSince(before, "2026-11-20")).toBeNull();
  const dry = goneSince([...before, drive(15, false, "Dry"), drive(16, false, "Dry")], "2026-11-20");
  expect(dry).toMatchObject({ condition: "Wet", since: { on: 0, of: 0 }, p: 0.5 });
  const wet = goneSince([...before, ...[15, 16, 17].map((d) => drive(d, false, "Wet"))], "2026-11-20");
  expect(wet!.p).toBeGreaterThan(0.95);
  expect(goneSince([...before, drive(15, true, "Dry")], "2026-11-20")!.p).toBe(0);
});
