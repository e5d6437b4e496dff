import { configure } from '@testing-library/react';

// What every browser has, jsdom lacks, and modules of the page ask for as soon as they are loaded.
globalThis.matchMedia ??= ((media: string) => ({ media, matches: false, addEventListener() {}, removeEventListener() {} })) as unknown as typeof matchMedia;

// A page takes as long as the machine makes it take: tests wait for what they look for, they measure nothing.
configure({ asyncUtilTimeout: 20_000 });
