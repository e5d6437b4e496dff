import { type AnyShow, sayMoment } from './show.js';

export const changedAt: AnyShow = {
  sort: 'changedAt',
  offers: () => [{ label: 'Changed on', type: 'moment' }],
  read: ({ changedAt: at }, node) => sayMoment(at(node)),
};
export const changedBy: AnyShow = { sort: 'changedBy', offers: () => [{ label: 'Changed by', type: 'choice' }], read: ({ changedBy: by }, node) => by(node) };
export const createdAt: AnyShow = {
  sort: 'createdAt',
  offers: () => [{ label: 'Made on', type: 'moment' }],
  read: ({ createdAt: at }, node) => sayMoment(at(node)),
};
