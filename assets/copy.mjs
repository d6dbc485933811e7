// Copies the scripts and fonts that ship with the application.
import { copyFileSync, mkdirSync } from "node:fs";

const out = "../src/wattmetron/shell/static";
mkdirSync(`${out}/vendor`, { recursive: true });
mkdirSync(`${out}/fonts`, { recursive: true });
const from = "node_modules";
for (const [source, target] of [
  ["htmx.org/dist/htmx.min.js", "vendor/htmx.min.js"],
  ["idiomorph/dist/idiomorph-ext.min.js", "vendor/idiomorph-ext.min.js"],
  ["@alpinejs/csp/dist/cdn.min.js", "vendor/alpine-csp.min.js"],
  ["@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2", "fonts/text-latin.woff2"],
  ["@fontsource-variable/source-sans-3/files/source-sans-3-latin-ext-wght-normal.woff2", "fonts/text-latin-ext.woff2"],
  ["@fontsource/inconsolata/files/inconsolata-latin-400-normal.woff2", "fonts/figures-400.woff2"],
  ["@fontsource/inconsolata/files/inconsolata-latin-600-normal.woff2", "fonts/figures-600.woff2"],
]) {
  copyFileSync(`${from}/${source}`, `${out}/${target}`);
}
