// Says how much of the rooms the tests went through, all runs together:  node tools/coverage.mjs FILE.xml ...  (Cobertura)
import { readFileSync } from "node:fs";

const lines = new Map();
const branches = new Map();
for (const file of process.argv.slice(2)) {
  for (const [, source, body] of readFileSync(file, "utf8").matchAll(/<class [^>]*filename="([^"]+)"[^>]*>([\s\S]*?)<\/class>/g)) {
    const place = /src\/(PorchLight\.(?:Core|Server))\/(?!obj\/|Data\/Migrations\/).*/.exec(source);
    if (!place) continue;
    for (const [, number, hits, rest] of body.matchAll(/<line number="(\d+)" hits="(\d+)"([^>]*)/g)) {
      const key = `${place[1]} ${place[0]}:${number}`;
      lines.set(key, lines.get(key) || hits !== "0");
      const taken = /condition-coverage="[^(]*\((\d+)\/(\d+)\)/.exec(rest);
      if (taken) branches.set(key, [Math.max(branches.get(key)?.[0] ?? 0, Number(taken[1])), Number(taken[2])]);
    }
  }
}
for (const room of ["PorchLight.Core", "PorchLight.Server"]) {
  const of = (map) => [...map].filter(([key]) => key.startsWith(`${room} `)).map(([, value]) => value);
  const sum = (pairs, n) => pairs.reduce((total, pair) => total + pair[n], 0);
  const [hit, both] = [of(lines), of(branches)];
  const share = (part, whole) => `${part} of ${whole} (${((100 * part) / whole).toFixed(2)} %)`;
  console.log(`${room}: lines ${share(hit.filter(Boolean).length, hit.length)}, branches ${share(sum(both, 0), sum(both, 1))}`);
}
