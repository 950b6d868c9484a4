import "@testing-library/jest-dom/vitest";
