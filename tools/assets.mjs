// Puts third-party and our own styles, scripts and fonts where the application serves them.
import { build } from "esbuild";
import { compile } from "sass";
import { createHash } from "node:crypto";
import { copyFileSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";

const from = "src/lovrit/web/static";
const to = `${from}/built`;
const fonts = "node_modules/@fontsource-variable/recursive/files";

rmSync(to, { recursive: true, force: true });
mkdirSync(to, { recursive: true });

await build({
  entryPoints: ["page", "desk", "run", "debrief", "fit", "hall", "straps", "weeks", "streams", "own", "mine", "early"].map((name) => `${from}/scripts/${name}.js`),
  bundle: true,
  splitting: true,
  chunkNames: "part-[hash]",
  format: "esm",
  minify: true,
  target: "es2022",
  outdir: to,
  legalComments: "none",
});

const { css } = compile(`${from}/styles/lovrit.scss`, {
  loadPaths: ["node_modules"],
  style: "compressed",
  quietDeps: true,
  silenceDeprecations: ["import", "global-builtin", "color-functions", "if-function"],
});
writeFileSync(`${to}/lovrit.css`, css);
for (const name of ["latin", "latin-ext"]) {
  copyFileSync(`${fonts}/recursive-${name}-mono-normal.woff2`, `${to}/recursive-${name}-mono-normal.woff2`);
}
copyFileSync(`${from}/mark.svg`, `${to}/mark.svg`);

const sum = createHash("sha256");
for (const name of readdirSync(to).sort()) sum.update(name).update(readFileSync(`${to}/${name}`));
writeFileSync(`${to}/build.txt`, `${sum.digest("hex")}\n`);
