import { useSyncExternalStore } from "react";

type Theme = "light" | "dark";
const KEY = "paseo-theme";
const listeners = new Set<() => void>();

const current = (): Theme => (document.documentElement.dataset.theme === "dark" ? "dark" : "light");

/** Sets the theme that was chosen, or the one that the reader's system prefers. */
export function startTheme() {
  const chosen = localStorage.getItem(KEY);
  const preferred = matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
  document.documentElement.dataset.theme = chosen ?? preferred;
}

export function flipTheme() {
  const next = current() === "dark" ? "light" : "dark";
  document.documentElement.dataset.theme = next;
  localStorage.setItem(KEY, next);
  listeners.forEach((listener) => listener());
}

export const useTheme = (): Theme =>
  useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, current);
