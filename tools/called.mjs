// Compares the operations that tests called with success (METHOD path, one a line) with the contract, and names those that none called.
// node tools/called.mjs openapi.json called.txt...
import { readFileSync } from 'node:fs'

const [contract, ...lists] = process.argv.slice(2)
// Routes say the type of a part of an address, the contract does not.
const plain = operation => operation.replace(/\{(\w+)[^}]*\}/g, '{$1}').replace(/\/$/, '')
const called = new Set(lists.flatMap(list => readFileSync(list, 'utf8').split('\n')).map(plain))
const operations = Object.entries(JSON.parse(readFileSync(contract, 'utf8')).paths).flatMap(([path, methods]) =>
  Object.keys(methods).map(method => `${method.toUpperCase()} ${path}`)
)
const uncalled = operations.filter(operation => !called.has(plain(operation)))
if (uncalled.length > 0) {
  console.error(`No test calls these with success:\n  ${uncalled.join('\n  ')}`)
  process.exit(1)
}
