import { configure } from '@testing-library/react';

// What every browser has, jsdom lacks, and modules of the page ask for as soon as they are loaded.
globalThis.matchMedia ??= ((media: string) => ({ media, matches: false, addEventListener() {}, removeEventListener() {} })) as unknown as typeof matchMedia;

// A page takes as long as the machine makes it take: tests wait for what they look for, they measure nothing.
configure({ asyncUtilTimeout: 20_000 });

// jsdom lays nothing out: every element stands at 0, 0, where tests click, and so would the borders between panes, which take such clicks.
const measure = Element.prototype.getBoundingClientRect;
Element.prototype.getBoundingClientRect = function () {
  return this.hasAttribute('data-separator') ? new DOMRect(-100, -100, 1, 1) : measure.call(this);
};

// Editors ask where their words stand.
// An empty list of rectangles is one.
Range.prototype.getClientRects ??= () => [] as unknown as DOMRectList;
Range.prototype.getBoundingClientRect ??= () => new DOMRect();

// What comes into sight: nothing does where nothing is laid out.
globalThis.IntersectionObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
} as unknown as typeof IntersectionObserver;

// Files share a process, and so a window: what one of them kept there is gone for the next.
localStorage.clear();
sessionStorage.clear();
document.body.replaceChildren();
