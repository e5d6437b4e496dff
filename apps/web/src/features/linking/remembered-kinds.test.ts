import { type AllowedLink, defaultScheme, findAllowedLinks } from '@coomb/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { recallKind, rememberKind } from './remembered-kinds';

const allowed = (a: string, b: string) => findAllowedLinks(defaultScheme, a, b);
const say = (one: AllowedLink | undefined) => one && `${one.linkKind.id}${one.reversed ? ' reversed' : ''}`;

describe('remembered kinds of links', () => {
  beforeEach(() => localStorage.clear());

  it('are those that were chosen last for two kinds of items, either way round, in each project by itself', () => {
    const choices = allowed('function', 'requirement');
    expect(choices.length).toBeGreaterThan(1);
    expect(recallKind('p', 'function', 'requirement', choices)).toBeUndefined();
    rememberKind('p', 'function', 'requirement', choices[1]!);
    expect(say(recallKind('p', 'function', 'requirement', choices))).toBe(say(choices[1]));
    expect(say(recallKind('p', 'requirement', 'function', allowed('requirement', 'function')))).toBe(`${choices[1]!.linkKind.id} reversed`);
    expect(recallKind('q', 'function', 'requirement', choices)).toBeUndefined();
    rememberKind('p', 'requirement', 'function', allowed('requirement', 'function')[0]!);
    expect(say(recallKind('p', 'function', 'requirement', choices))).toBe(say(choices[0]));
  });

  it('are not taken where they may be made no more, nor read from what is broken', () => {
    const choices = allowed('function', 'requirement');
    rememberKind('p', 'function', 'requirement', choices[1]!);
    expect(recallKind('p', 'function', 'requirement', [choices[0]!])).toBeUndefined();
    localStorage.setItem('coomb.kinds.p', '[');
    expect(recallKind('p', 'function', 'requirement', choices)).toBeUndefined();
  });
});
