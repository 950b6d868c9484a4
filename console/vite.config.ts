import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { target: "es2022", sourcemap: false },
  server: { host: "127.0.0.1", proxy: { "/api": "http://127.0.0.1:7600" } },
  test: { environment: "jsdom", setupFiles: ["src/setup.test-env.ts"], include: ["src/**/*.test.{ts,tsx}"] },
});
