// Does what is named, unless it was done already with the same inputs:  node scripts/keyed.mjs install|build|check ...
// The key of what was read is left beside what was made of it; a key that fits means that nothing need be done.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";

const settings = [
  "package.json",
  "package-lock.json",
  ...readdirSync(".").filter((name) => /\.(ts|js)$/.test(name) || name === "tsconfig.json"),
];
const tasks = {
  install: {
    reads: ["package.json", "package-lock.json"],
    runs: ["npm ci --no-audit --no-fund"],
    key: "node_modules/.installed",
  },
  build: {
    reads: [...settings, "src", "pages", "scripts"],
    runs: ["npm run --silent build"],
    key: "../PorchLight.Server/wwwroot/.built",
  },
  check: {
    reads: [...settings, "src", "scripts"],
    runs: ["npm run --silent types", "npm run --silent lint"],
    key: "node_modules/.checked",
  },
};

for (const name of process.argv.slice(2)) {
  const { reads, runs, key } = tasks[name];
  const now = keyOf(reads);
  if (existsSync(key) && readFileSync(key, "utf8") === now) continue;
  for (const command of runs) {
    const { status } = spawnSync(command, { shell: true, stdio: "inherit" });
    if (status !== 0) process.exit(status ?? 1);
  }
  writeFileSync(key, now);
}

function keyOf(paths) {
  const hash = createHash("sha256").update(process.version);
  for (const path of paths.flatMap(filesIn).sort()) hash.update(`${path}\0`).update(readFileSync(path)).update("\0");
  return hash.digest("hex");
}

function filesIn(path) {
  return statSync(path).isDirectory() ? readdirSync(path).flatMap((name) => filesIn(join(path, name))) : [path];
}
