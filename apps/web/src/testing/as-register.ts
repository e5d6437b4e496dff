import { screen } from '@testing-library/react';

/** References of the items that a view opens as rows of a register, in its order. */
export function namedAsRegister(label = 'As a register'): string[] {
  const address = new URL(screen.getByRole('link', { name: label }).getAttribute('href')!, location.href);
  const { conditions } = JSON.parse(address.searchParams.get('what')!) as { conditions: { shown: { sort: string }; values: string[] }[] };
  return conditions.flatMap(({ shown, values }) => (shown.sort === 'reference' ? values : []));
}
