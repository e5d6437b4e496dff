import { getProject, getRealisation } from '@coomb/contract';
import { screen, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { answer, aProject, idOf, show, usePage } from '../../testing/page';
import { RealisationPage } from './RealisationPage';

const layer = (id: string, label: string, items: number, byNext: number, none: number, gaps: { collection: string; count: number }[] = []) => ({
  ...{ layer: id, label, items, next: null, byNext, below: items - byNext - none, none, gaps },
});

describe('layers from the top', () => {
  usePage();
  beforeEach(() => answer(getProject, aProject));
  const band = async (name: string) => within(await screen.findByRole('region', { name }));

  it('say of each how much the next makes real, every number leading to its items and the gaps to the bench', async () => {
    answer(getRealisation, [
      layer('needs', 'Needs', 4, 4, 0),
      layer('requirements', 'System requirements', 10, 5, 2, [{ collection: idOf(11), count: 2 }]),
      layer('functions', 'Functions', 0, 0, 0),
      layer('components', 'Components', 3, 0, 0),
    ]);
    show(<RealisationPage />);
    const needs = await band('Needs');
    expect(needs.getByText('100 %')).toBeTruthy();
    expect(needs.getByText('Nothing is missing')).toBeTruthy();
    const requirements = await band('System requirements');
    expect(requirements.getByText('50 %')).toBeTruthy();
    const targets = requirements.getAllByRole('link').map((link) => [link.textContent, link.getAttribute('href')!.replace(`/p/${aProject.id}/`, '')]);
    expect(targets).toEqual([
      ['10 items', 'check/figure/layer:requirements'],
      ['5 by components', 'check/figure/realised:requirements:next'],
      ['3 further below only', 'check/figure/realised:requirements:below'],
      ['2 not yet', 'check/figure/realised:requirements:none'],
      ['the links between', 'link/all?layers=components%3Erequirements'],
      [expect.stringMatching(/^Walk 2: *System requirements$/), expect.stringMatching(new RegExp(`^link\\?left=${idOf(11)}&.*only=unlinked&order=likely`))],
    ]);
    // What holds nothing makes nothing real and is left out; the lowest has nothing below it.
    expect(screen.queryByText('Functions')).toBeNull();
    expect((await band('Components')).queryByText(/%/)).toBeNull();
  });

  it('say so where no layer holds anything yet', async () => {
    answer(getRealisation, [layer('needs', 'Needs', 0, 0, 0)]);
    show(<RealisationPage />);
    expect(await screen.findByText('No layer holds anything yet')).toBeTruthy();
  });
});
