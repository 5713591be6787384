// Holds the JavaScript that the first screen loads under its budget, gzipped.
import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'

const budget = 200_000 // bytes, gzipped
const html = readFileSync('dist/index.html', 'utf8')
const files = [...html.matchAll(/(?:src|href)="\/(assets\/[^"]+\.js)"/g)].map((m) => m[1])
const size = files.reduce((sum, f) => sum + gzipSync(readFileSync(`dist/${f}`)).length, 0)
console.log(`Initial JavaScript: ${(size / 1000).toFixed(1)} kB gzipped of ${budget / 1000} kB, ${files.length} files`)
if (files.length === 0 || size > budget) {
  console.error('The first screen is too heavy: load something later, or take it out.')
  process.exit(1)
}
