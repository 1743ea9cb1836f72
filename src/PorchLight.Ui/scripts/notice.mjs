// Writes NOTICE.txt beside the built files: every package whose code or fonts they hold, each with its licence text.
import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";

const shipped = new Map();
const read = (folder) => JSON.parse(readFileSync(join(folder, "package.json"), "utf8"));

// A package stands in the nearest node_modules at or above the one that asks for it.
function find(name, from) {
  for (let folder = from; ; folder = dirname(folder)) {
    const at = join(folder, "node_modules", name);
    if (existsSync(join(at, "package.json"))) return at;
    if (folder === dirname(folder)) return null;
  }
}

function add(name, from) {
  const folder = find(name, from);
  if (!folder || shipped.has(folder)) return;
  const { version, license, dependencies = {} } = read(folder);
  const texts = readdirSync(folder).filter((file) => /^(licen[cs]e|notice|ofl)/i.test(file));
  shipped.set(folder, {
    name: `${name} ${version}`,
    license: typeof license === "string" ? license : "see below",
    text: texts.map((file) => readFileSync(join(folder, file), "utf8").trim()).join("\n\n"),
  });
  for (const next of Object.keys(dependencies)) add(next, folder);
}

const here = process.cwd();
for (const name of Object.keys(read(here).dependencies)) add(name, here);
const all = [...shipped.values()].sort((a, b) => a.name.localeCompare(b.name));
const fonts = all.filter(({ name, text }) => name.startsWith("@fontsource") && !text);
if (fonts.length > 0) throw new Error(`No licence text came with ${fonts.map(({ name }) => name).join(", ")}`);
const pages = all.map(
  ({ name, license, text }) => `${name}\nLicence: ${license}\n\n${text || "(Its package brings no licence text.)"}\n`,
);
writeFileSync(
  "../PorchLight.Server/wwwroot/NOTICE.txt",
  `The pages of Porch Light hold code and fonts of these packages.\n\n${pages.join(`\n${"-".repeat(72)}\n\n`)}`,
);
