import { describe, expect, it } from 'vitest';
import { defaultScheme } from './starters/index.js';
import { findAllowedLinks, getKind, phraseAt } from './scheme.js';

describe('the usual scheme', () => {
  const kinds = new Set(defaultScheme.kinds.map((kind) => kind.id));
  const linkKinds = new Set(defaultScheme.linkKinds.map((kind) => kind.id));

  it('names only what it has', () => {
    for (const kind of defaultScheme.kinds) expect(defaultScheme.layers.map((layer) => layer.id)).toContain(kind.layer);
    for (const link of defaultScheme.linkKinds) for (const end of [...link.fromKinds, ...link.toKinds]) expect(kinds).toContain(end);
    for (const rule of defaultScheme.rules) {
      for (const kind of [...rule.of.kinds, ...rule.reach.kinds]) expect(kinds).toContain(kind);
      for (const { linkKind } of rule.along) expect(linkKinds).toContain(linkKind);
    }
    expect(linkKinds).toContain(defaultScheme.verification.verifies);
  });

  it('uses no id twice', () => {
    expect(kinds.size).toBe(defaultScheme.kinds.length);
    expect(linkKinds.size).toBe(defaultScheme.linkKinds.length);
  });

  it('lets every rule be met by some allowed link', () => {
    for (const rule of defaultScheme.rules) {
      const reachable = rule.along.some(({ linkKind, direction }) => {
        const link = defaultScheme.linkKinds.find((kind) => kind.id === linkKind)!;
        return (direction === 'out' ? link.fromKinds : link.toKinds).some((kind) => rule.of.kinds.includes(kind));
      });
      expect(reachable, rule.id).toBe(true);
    }
  });
});

describe('findAllowedLinks', () => {
  it('offers a test and a requirement one link, from the test', () => {
    expect(findAllowedLinks(defaultScheme, 'testCase', 'requirement').map((one) => [one.linkKind.id, one.reversed])).toEqual([['verifies', false]]);
    expect(findAllowedLinks(defaultScheme, 'requirement', 'testCase').map((one) => [one.linkKind.id, one.reversed])).toEqual([['verifies', true]]);
  });

  it('offers both ways between two requirements', () => {
    expect(findAllowedLinks(defaultScheme, 'requirement', 'need').map((one) => one.reversed)).toEqual([false, true]);
  });

  it('offers nothing where nothing fits', () => {
    expect(findAllowedLinks(defaultScheme, 'testCase', 'testCase')).toEqual([]);
  });

  it('reads a link from either end', () => {
    const verifies = defaultScheme.linkKinds.find((kind) => kind.id === 'verifies')!;
    expect([phraseAt(verifies, 'from'), phraseAt(verifies, 'to')]).toEqual(['verifies', 'is verified by']);
    expect(() => getKind(defaultScheme, 'riddle')).toThrow('riddle');
  });
});
