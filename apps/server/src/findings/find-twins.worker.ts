import { findTwins, type Twins } from '@coomb/core';

export interface TwinsTask {
  texts: { group: number; text: string }[];
}

/** Compares texts away from the thread that answers people. */
export default function findTwinsInWorker({ texts }: TwinsTask): Twins[] {
  return findTwins(texts);
}
