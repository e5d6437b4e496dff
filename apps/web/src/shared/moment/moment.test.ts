import { createBaseline, editItem, endpoints, findItems, getOutline, listChanges, lookThrough, needs, queryRegister, readImpact } from '@coomb/contract';
import { afterEach, describe, expect, it } from 'vitest';
import { projectKey } from '../api/keys';
import { addressOf, call, upload } from '../api/client';
import { askedAsOf } from './asked-as-of';
import { lookAsOf, momentOf } from './moment';

const project = '01a00000-0000-7000-8000-000000000001';

describe('an earlier moment', () => {
  afterEach(() => sessionStorage.clear());

  it('is what everything is read as of, and nothing is changed in; what leads through moments is read as of now', () => {
    for (const endpoint of [getOutline, editItem, queryRegister]) expect(askedAsOf(endpoint, project)).toBeUndefined();
    lookAsOf(project, { seq: 12, says: 'change 12' });
    for (const endpoint of [getOutline, queryRegister, readImpact, lookThrough, findItems]) expect(askedAsOf(endpoint, project)).toBe(12);
    expect(askedAsOf(editItem, project)).toBe('refused');
    expect(askedAsOf(listChanges, project)).toBeUndefined();
    expect(askedAsOf(createBaseline, project)).toBeUndefined();
    expect(askedAsOf(getOutline, 'another project')).toBeUndefined();
  });

  it('refuses every call that would change something', () => {
    lookAsOf(project, { seq: 12, says: 'change 12' });
    const allowed = Object.entries(endpoints).filter(([name, endpoint]) => needs[name] !== 'read' && askedAsOf(endpoint, project) !== 'refused');
    expect(allowed.map(([name]) => name).toSorted()).toEqual(['createBaseline', 'withdrawBaseline']);
  });

  it('is refused before anything is sent', async () => {
    lookAsOf(project, { seq: 12, says: 'change 12' });
    await expect(call(editItem, { params: { project, item: 'SYS-001' }, body: { revision: 1, title: 'x' } })).rejects.toThrow('earlier moment');
    await expect(upload(project, new File([''], 'a.csv'))).rejects.toThrow('earlier moment');
  });

  it('stands in addresses of files, and keeps what was read apart from what holds now', () => {
    const params = { project };
    expect(addressOf(getOutline, params)).not.toContain('asOf');
    const now = projectKey(project);
    lookAsOf(project, { seq: 12, says: 'change 12' });
    expect(addressOf(getOutline, params)).toContain('asOf=12');
    expect(projectKey(project)).not.toEqual(now);
    expect(projectKey(project).slice(0, now.length)).toEqual(now);
    lookAsOf(project, undefined);
    expect(projectKey(project)).toEqual(now);
  });

  it('is nothing where what is kept cannot be read', () => {
    sessionStorage.setItem(`coomb.moment.${project}`, '{"seq":"x"}');
    expect(momentOf(project)).toBeUndefined();
  });
});
