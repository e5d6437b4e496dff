// What every browser has, jsdom lacks, and modules of the page ask for as soon as they are loaded.
globalThis.matchMedia ??= ((media: string) => ({ media, matches: false, addEventListener() {}, removeEventListener() {} })) as unknown as typeof matchMedia;
