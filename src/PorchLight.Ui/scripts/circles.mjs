// Fails when files import each other in a circle.
import { readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";

const imports = /(?:from|import)\s+"(\.[^"]+)"/g;
const files = readdirSync("src", { recursive: true })
  .filter((file) => /\.tsx?$/.test(file))
  .map((file) => join("src", file));
const known = (from, path) =>
  [".ts", ".tsx"].map((ending) => join(dirname(from), path) + ending).filter((file) => files.includes(file));
const imported = (file) => [...readFileSync(file, "utf8").matchAll(imports)].flatMap(([, path]) => known(file, path));
const done = new Set();
const way = [];
const circles = [];

function walk(file) {
  if (way.includes(file)) circles.push([...way.slice(way.indexOf(file)), file].join("\n  -> "));
  if (way.includes(file) || done.has(file)) return;
  way.push(file);
  for (const next of imported(file)) walk(next);
  way.pop();
  done.add(file);
}

files.forEach(walk);
if (circles.length > 0) {
  console.error(`These files import each other in a circle:\n${circles.join("\n")}`);
  process.exit(1);
}
