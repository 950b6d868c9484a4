import "@testing-library/jest-dom/vitest";

/** The test environment draws nothing, so nothing in it changes its size. */
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
