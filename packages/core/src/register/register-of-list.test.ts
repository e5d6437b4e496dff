import { describe, expect, it } from 'vitest';
import { defaultScheme } from '../scheme/starters/index.js';
import { conditionOfFigure, MOST_LISTED, registerOfList } from './register-of-list.js';
import { sayCondition } from './say-register.js';

const items = (count: number, kind = 'requirement') => Array.from({ length: count }, (_, at) => ({ reference: `SYS-${at}`, kind }));

describe('the register of a list', () => {
  it('asks what a figure asks, where a condition says the same', () => {
    const rule = defaultScheme.rules[0]!;
    const said = (figure: string) => {
      const condition = conditionOfFigure(defaultScheme, figure);
      return condition && sayCondition(defaultScheme, condition);
    };
    expect([said(`rule:${rule.id}:notMet`), said('state:failing')]).toEqual([`whose ${rule.label} is not met`, 'whose State is Failing']);
    expect([said('rule:gone:notMet'), said('rule:tested:odd'), said('state:odd'), said('tests:3'), said('')]).toEqual(Array(5).fill(undefined));
  });

  it('has the columns of its kind, and everything that the condition asks for', () => {
    const common = conditionOfFigure(defaultScheme, 'state:failing')!;
    const register = registerOfList(defaultScheme, items(3), common)!;
    expect([register.kinds, register.conditions]).toEqual([[], [common]]);
    expect(register.columns.map(({ shown }) => shown.of)).toContain('priority');
  });

  it('names items one by one where nothing is known that they have in common, as many as an address holds', () => {
    const register = registerOfList(defaultScheme, items(450))!;
    expect(register.conditions.map(({ values }) => values.length)).toEqual([200, 200, 50]);
    expect(register.match).toBe('any');
    expect(sayCondition(defaultScheme, register.conditions[2]!)).toBe(
      'whose Reference is SYS-400, SYS-401, SYS-402, SYS-403, SYS-404, SYS-405 or one of 44 more',
    );
    expect(registerOfList(defaultScheme, items(MOST_LISTED + 1))).toBeUndefined();
    expect(registerOfList(defaultScheme, [...items(1), ...items(1, 'need')])!.columns.map(({ shown }) => shown.sort)).toContain('kind');
  });
});
