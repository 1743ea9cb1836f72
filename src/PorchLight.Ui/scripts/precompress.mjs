// Writes a .br and a .gz beside every text file of the build, so that the server never compresses at run time.
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, gzipSync } from "node:zlib";

const root = "../PorchLight.Server/wwwroot";
const text = /\.(js|css|svg|html|json|map)$/;

for (const entry of readdirSync(root, { recursive: true, withFileTypes: true })) {
  if (!entry.isFile() || !text.test(entry.name)) continue;
  const file = join(entry.parentPath, entry.name);
  const body = readFileSync(file);
  writeFileSync(`${file}.br`, brotliCompressSync(body));
  writeFileSync(`${file}.gz`, gzipSync(body, { level: 9 }));
}
